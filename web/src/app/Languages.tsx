/** The language that pages are in, chosen under the shop's name. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import { i18n, speak, tags } from '../i18n';
import { cell } from './Settings';

/** What a language's speakers call it. */
const nameOf = (tag: string) => new Intl.DisplayNames([tag], { type: 'language' }).of(tag) ?? tag;

/** Each language by what its speakers call it. */
export function Languages() {
  return (
    <Box role="radiogroup" aria-label={t`Language`} sx={{ display: 'flex', flexWrap: 'wrap' }}>
      {tags.map((tag) => (
        <ButtonBase
          key={tag}
          role="radio"
          lang={tag}
          aria-checked={i18n.locale === tag}
          onClick={() => speak(tag)}
          sx={{ ...cell, textTransform: 'capitalize' }}
        >
          {nameOf(tag)}
        </ButtonBase>
      ))}
    </Box>
  );
}
