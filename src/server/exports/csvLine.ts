import Papa from 'papaparse';

/** A record of CSV with its line end (RFC 4180). */
export const csvLine = (cells: readonly string[]): string => `${Papa.unparse([[...cells]], { newline: '\r\n' })}\r\n`;
