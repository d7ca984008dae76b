// Made from core/units by server/gen; do not change it here.

export const inchMM = 25.4;
export const lengthParts = 16;
export const fineParts = 32;
export const cutParts = 4;
