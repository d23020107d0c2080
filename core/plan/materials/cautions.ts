/** Short warnings at the step (craft.md, Cautions). Each defers to the product's own sheet and to local rules. */
export const CAUTIONS = {
  resin:
    'Nitrile gloves, eye protection, fresh air: uncured resin sensitises. Nothing down the drain. Follow the resin’s safety data sheet and local rules.',
  solvent:
    'Flammable vapour: no flame or spark, open window, never a closed room. Follow the product’s safety data sheet and local rules.',
  uv: 'Shield eyes and skin from the lamp. Follow the lamp’s and the resin’s own sheets.',
  dust: 'Particulate respirator and eye protection; sand wet where you can and keep dust out of the home. Follow the resin’s safety data sheet.',
  spray:
    'Organic-vapour respirator and extraction; no ignition source. Follow the can’s safety data sheet and local rules.',
  putty: 'Gloves: two-part putties and epoxies sensitise skin. Follow the product’s safety data sheet.',
  fumes: 'Open window or extraction: solvent fumes. Follow the product’s safety data sheet and local rules.',
  polyester:
    'Organic-vapour respirator and extraction; the peroxide hardener burns skin and eyes. Follow the product’s safety data sheet.',
  casting:
    'Gloves and fresh air: casting resins sensitise and heat themselves; thick pours can smoke. Small layers, away from what burns. Follow the product’s safety data sheet.',
  glue: 'Eye protection; bonds skin in seconds. Follow the product’s safety data sheet.',
  blade: 'Clamp the part and cut away from the hand; eye protection when snipping.',
  mist: 'Extraction or a mask against spray mist. Follow the paint’s own sheet.',
} as const
export type Caution = keyof typeof CAUTIONS
