import type { RoleFamily } from '@visograph/core/model';

/** The colours of a theme, by use. Paper is for day and print, Night for dark rooms. */
export interface Tokens {
  ground: string;
  band: string;
  surface: string;
  ink: string;
  inkSoft: string;
  rule: string;
  accent: string;
  accentInk: string;
  accentWash: string;
  ok: string;
  warn: string;
  bad: string;
  unknown: string;
  container: string;
  hatch: string;
  family: Record<RoleFamily, string>;
  tabInk: string;
  /** Five steps from little to much. */
  ramp: readonly string[];
  /** Twelve colours that stay apart for colour-blind readers, assigned in order. */
  set: readonly string[];
}

const family: Record<RoleFamily, string> = {
  forwarding: '#3D4F8F',
  protection: '#8C3B3B',
  compute: '#3F6B57',
  endpoints: '#8A6A1F',
  passive: '#6F675A',
  outside: '#2F6F80',
};

const ramp = ['#68717D', '#47759A', '#3E6A9E', '#6B4A93', '#8A2F5E'];
const set = [
  '#2F6F80',
  '#A2521B',
  '#5A4FA2',
  '#3F7A3A',
  '#A23B6B',
  '#7A6A14',
  '#31589C',
  '#8C3B3B',
  '#2E7D6B',
  '#7B4A8F',
  '#5F6A2A',
  '#6F5A4A',
];

export const paper: Tokens = {
  ground: '#FBFAF6',
  band: '#F1EDE3',
  surface: '#FFFFFF',
  ink: '#16202E',
  inkSoft: '#566273',
  rule: '#DAD4C5',
  accent: '#6B2D82',
  accentInk: '#FFFFFF',
  accentWash: '#F1E8F5',
  ok: '#1F7A4D',
  warn: '#9A5B00',
  bad: '#B3261E',
  unknown: '#566273',
  container: '#F3EEE3',
  hatch: '#E6E0D2',
  family,
  tabInk: '#FFFFFF',
  ramp,
  set,
};

export const night: Tokens = {
  ground: '#10151D',
  band: '#171E29',
  surface: '#1C2431',
  ink: '#E8ECF2',
  inkSoft: '#A9B4C2',
  rule: '#2E394A',
  accent: '#C9A0DF',
  accentInk: '#1B1024',
  accentWash: '#2B2036',
  ok: '#5CC593',
  warn: '#E3A857',
  bad: '#F0827A',
  unknown: '#A9B4C2',
  container: '#161D28',
  hatch: '#26303F',
  family,
  tabInk: '#FFFFFF',
  ramp,
  set,
};

export const fonts = {
  text: "'Atkinson Hyperlegible Next', 'Helvetica Neue', Arial, sans-serif",
  mono: "'Atkinson Hyperlegible Mono', 'DejaVu Sans Mono', monospace",
};
