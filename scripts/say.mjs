/** Words to the person at the terminal, and an end that leaves no doubt. */
export const say = (text) => console.error(text);

export function stopWith(text, code = 1) {
  console.error(text);
  process.exit(code);
}
