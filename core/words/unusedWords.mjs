/**
 * Words that no text has, as the source of a regular expression: the list is that of the language in docs/development.md. ESLint
 * looks for them in texts of the code, and a test in the catalogue and in the guide.
 */
export const UNUSED_WORDS =
  '(anew|afresh|reckon(s|ed|ing)?|whence|heard|heed(s|ed)?|(takes?|taken|took) (up|away)|take it off|put by|put it under|(lay|laid) aside|leave it|lets? in|(gives?|given) out|keep it so|com(e|es|ing) out|came out|ways? up|knots?|knotted|to (settle|know)|feel(s|ing)?|stand-ins?|(has|have) taught|goe?s? by|as it came|lies|lays?|laid|lying)'
