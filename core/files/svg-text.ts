const escapes: Record<string, string> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', "'": '&apos;' }

/** A text as it stands in an SVG file or within one of its attributes: whatever it says, it stands for itself. */
export const svgText = (text: string): string => text.replace(/[&<>"']/g, (letter) => escapes[letter] ?? letter)
