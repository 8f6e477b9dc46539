/** Which Visograph this is: as in package.json and CHANGELOG.md. */
export const version = '0.1.0';
