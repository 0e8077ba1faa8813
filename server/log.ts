import pino from 'pino'

/** Structured lines on standard error, so that what a command prints for people stays readable. Never holds what was typed, nor a password. */
export const log = pino({ level: process.env.HALLWAY_LOG ?? 'warn', base: null }, pino.destination(2))
