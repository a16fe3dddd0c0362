/** The words of records, in a file of their own: they stand in the declarations, which are fetched when a word is first needed. */
export { recordWord } from '@bold-ballast/core'
