/** Photos that the journeys take: drawn in the browser, since no camera is there. */
import type { JSHandle, Page } from '@playwright/test';

/** A drawing as a file that can be chosen. */
async function photo(name: string, drawn: JSHandle<OffscreenCanvas>) {
  const bytes = await drawn.evaluate(async (on) => {
    const jpeg = await on.convertToBlob({ type: 'image/jpeg', quality: 0.9 });
    return Array.from(new Uint8Array(await jpeg.arrayBuffer()));
  });
  return { name, mimeType: 'image/jpeg', buffer: Buffer.from(bytes) };
}

export interface DrawnBlade {
  teeth: number;
  hook: number; // degrees
  bore: number; // to the diameter
  missing?: number; // a tooth that is not there
  bent?: number; // and one that stands back
}

/** A blade on a bench, as a JPEG. */
export async function bladePhoto(page: Page, blade: DrawnBlade) {
  const drawn = await page.evaluateHandle(({ teeth, hook, bore, missing, bent }) => {
    const on = new OffscreenCanvas(1600, 1200);
    const c = on.getContext('2d')!;
    c.fillStyle = '#b98f5c';
    c.fillRect(0, 0, 1600, 1200);
    for (let x = -600; x < 1600; x += 37) {
      c.fillStyle = `rgba(60, 30, 0, ${0.03 + 0.03 * Math.sin(x)})`;
      c.fillRect(x, 0, 9, 1200);
    }
    c.translate(790, 610);
    c.rotate(0.3);
    c.scale(1, 0.985);
    const radius = 520;
    const pitch = (2 * Math.PI) / teeth;
    const deep = Math.min(52, 0.42 * pitch * radius);
    const at = (r: number, a: number) => [r * Math.cos(a), r * Math.sin(a)] as const;
    const h = (hook * Math.PI) / 180;
    const plate = new Path2D();
    for (let k = 0; k < teeth; k++) {
      const a = k * pitch;
      const gone = k === missing;
      const back = k === bent ? 0.1 * pitch : 0;
      const foot = [radius - deep * Math.cos(h), -deep * Math.sin(h)] as const;
      const footAngle = a + Math.atan2(foot[1], foot[0]);
      plate.lineTo(...at(radius - deep, a - 0.55 * pitch));
      if (!gone) {
        plate.lineTo(...at(radius - 0.1 * deep, a - 0.25 * pitch - 0.9 * back));
        plate.lineTo(...at(radius, a - back));
        plate.lineTo(...at(Math.hypot(...foot), footAngle));
      }
      plate.lineTo(...at(radius - deep, a + 0.3 * pitch));
    }
    plate.closePath();
    plate.arc(0, 0, bore * radius, 0, 2 * Math.PI);
    c.shadowColor = 'rgba(0, 0, 0, .4)';
    c.shadowBlur = 8;
    c.fillStyle = '#c3c8cc';
    c.fill(plate, 'evenodd');
    return on;
  }, blade);
  return photo('blade.jpg', drawn);
}

/** A broken place along an edge, in mm: from where on, how wide, how deep. */
type Broken = readonly [from: number, wide: number, deep: number];

/** A face of 200 mm from above, its cut edge towards whoever took it, on a green bench, as a JPEG. */
export async function edgePhoto(page: Page, splinters: readonly Broken[], upsideDown = false) {
  const drawn = await page.evaluateHandle(
    ({ all, upsideDown }) => {
      const on = new OffscreenCanvas(2000, 1200);
      const c = on.getContext('2d')!;
      c.fillStyle = '#4c6b58';
      c.fillRect(0, 0, 2000, 1200);
      if (upsideDown) c.transform(-1, 0, 0, -1, 2000, 1200);
      c.translate(1000, 700);
      c.rotate(-0.03);
      const px = 9; // a mm
      c.fillStyle = '#caa06e';
      c.fillRect(-100 * px, -500, 200 * px, 500);
      for (let k = 0; k < 300; k++) {
        c.fillStyle = `rgba(90, 60, 20, ${0.03 * ((k * 7) % 5)})`;
        c.fillRect(-100 * px + k * 6, -500, 3, 500);
      }
      for (const [from, wide, deep] of all) {
        const at = (x: number, y: number) => [(from - 100 + x * wide) * px, -y * deep * px] as const;
        c.fillStyle = '#e7cfa6';
        c.beginPath();
        c.moveTo(...at(0, 0));
        for (const [x, y] of [
          [0.15, 0.6],
          [0.4, 1],
          [0.55, 0.85],
          [0.7, 0.9],
          [1, 0],
        ] as const)
          c.lineTo(...at(x, y));
        c.fill();
      }
      return on;
    },
    { all: splinters, upsideDown },
  );
  return photo('edge.jpg', drawn);
}

export interface DrawnWall {
  brown: [from: number, to: number]; // shares of its length
  every?: number; // mm from one mark to the next, on a wall of 20 by 200 mm
}

/** The wall of a cut on a dark bench, as a JPEG. */
export async function wallPhoto(page: Page, wall: DrawnWall) {
  const drawn = await page.evaluateHandle(({ brown, every }) => {
    const on = new OffscreenCanvas(2000, 1000);
    const c = on.getContext('2d')!;
    c.fillStyle = '#3b4148';
    c.fillRect(0, 0, 2000, 1000);
    c.translate(1000, 500);
    c.rotate(0.04);
    const px = 9; // a mm
    c.fillStyle = '#d8b583';
    c.fillRect(-100 * px, -10 * px, 200 * px, 20 * px);
    for (let k = 0; k < 60; k++) {
      c.fillStyle = `rgba(90, 60, 20, ${0.05 * ((k * 7) % 5)})`;
      c.fillRect(-100 * px, -10 * px + k * 3, 200 * px, 2);
    }
    if (every !== undefined) {
      c.fillStyle = 'rgba(70, 45, 15, .28)';
      for (let x = -100; x < 100 - every; x += every) {
        c.beginPath();
        c.moveTo(x * px, 10 * px);
        c.quadraticCurveTo((x + 1.5) * px, 0, (x + 4) * px, -10 * px);
        c.lineTo((x + 4 + 0.35 * every) * px, -10 * px);
        c.quadraticCurveTo((x + 1.5 + 0.35 * every) * px, 0, (x + 0.35 * every) * px, 10 * px);
        c.fill();
      }
    }
    c.fillStyle = 'rgba(74, 36, 8, .72)';
    c.fillRect((-100 + 200 * brown[0]) * px, -10 * px, 200 * px * (brown[1] - brown[0]), 20 * px);
    return on;
  }, wall);
  return photo('wall.jpg', drawn);
}
