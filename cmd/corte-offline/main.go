//go:build js

// Corte-away is the core for a browser that has lost the server: loaded only
// then, over the shelf that was last seen. A page calls corteAway.shelf(json, language),
// which returns an empty text or why it cannot be read, then
// corteAway.ask(address, json), or corteAway.look(address, json, bytes, wide, high,
// places) of a picture's pixels, or corteAway.listen(saw, blade, rate) and then corteAway.hear(bytes)
// of each block of sound; all return [status, json].
package main

import (
	"syscall/js"
	_ "time/tzdata" // a shop's days are its own, whatever the browser's are

	"corte/core/sight"
	"corte/internal/offline"
)

func main() {
	var host *offline.Host
	js.Global().Set("corteAway", js.ValueOf(map[string]any{
		"shelf": js.FuncOf(func(_ js.Value, args []js.Value) any {
			h, err := offline.New([]byte(args[0].String()))
			if err != nil {
				return err.Error()
			}
			h.GoOn(host)
			h.Speak(args[1].String())
			host = h
			return ""
		}),
		"ask": js.FuncOf(func(_ js.Value, args []js.Value) any {
			if host == nil {
				return js.ValueOf([]any{503, `{}`}) // no shelf was read
			}
			status, out := host.Ask(args[0].String(), []byte(args[1].String()))
			return js.ValueOf([]any{status, string(out)})
		}),
		"look": js.FuncOf(func(_ js.Value, args []js.Value) any {
			if host == nil {
				return js.ValueOf([]any{503, `{}`})
			}
			p := sight.Picture{Wide: args[3].Int(), High: args[4].Int(), Pix: make([]byte, args[2].Length())}
			js.CopyBytesToGo(p.Pix, args[2])
			places := make([]float64, args[5].Length())
			for i := range places {
				places[i] = args[5].Index(i).Float()
			}
			status, out := host.Look(args[0].String(), []byte(args[1].String()), p, places)
			return js.ValueOf([]any{status, string(out)})
		}),
		"listen": js.FuncOf(func(_ js.Value, args []js.Value) any {
			if host == nil {
				return js.ValueOf([]any{503, `{}`})
			}
			status, out := host.Listen(args[0].String(), args[1].String(), args[2].Float())
			return js.ValueOf([]any{status, string(out)})
		}),
		"hear": js.FuncOf(func(_ js.Value, args []js.Value) any {
			if host == nil {
				return js.ValueOf([]any{503, `{}`})
			}
			block := make([]byte, args[0].Length())
			js.CopyBytesToGo(block, args[0])
			status, out := host.Hear(block)
			return js.ValueOf([]any{status, string(out)})
		}),
	}))
	select {} // it answers until the page lets go of it
}
