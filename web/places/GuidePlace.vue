<template>
  <article class="guide scroll">
    <h1 class="mb-3">Guide</h1>
    <p>
      A piece goes along its thread, top to bottom. Every stage opens with what was measured. <b>Settle</b> what must be
      dealt with before you go on; <b>know</b> the rest. Press a large number to see how it is known; “Show me” turns
      the sculpt to the place.
    </p>
    <h2>Model</h2>
    <p>
      <b>Intake</b>: drop sculpts or scans anywhere on the piece. Holes, flipped faces, crumbs, crossings and thin spots
      are counted and shown. Light repair welds, orients, fills and drops; rebuilding makes one skin of overlapping or
      torn bodies; the file itself stays as it came. Of a scan the floor is cut away, a surface is made, and two places
      with a known distance give it its true size. <b>Combine</b>: put parts where they belong by hand, by number or
      face to face; join them, or keep them apart with keys, pins, balls or magnets; see where they overlap or gape
      before anything is printed, and how far the whole can be tipped. <b>Pose</b>: press joints onto the sculpt and
      turn them; the skin follows and its volume is kept. <b>Size</b>: type a height, a factor or a ratio; sums like
      <kbd>180/6</kbd> work; cut what is too large, with keys in both halves.
    </p>
    <h2>Print</h2>
    <p>
      <b>Core</b>: solid, hollow and cast full stand side by side before you choose. A wall is kept everywhere, thicker
      where you brush or where it carries, and measured afterwards. Every cavity needs two holes, one low as it hangs,
      one for air; take one and slide it along the skin, and you are told what is behind it. <b>Stand</b>: mark what
      must stay clean, then weigh the ways up that none beats, or lay a face down, or tip it by hand; grow supports as
      you believe in them, paint them in or out, move them. What you set by hand stays when they are grown again.
      <b>Plates</b>: every layer as the printer shows it, hours, resin and money; download the layers, or the body with
      its supports.
    </p>
    <h2>Bench</h2>
    <p>
      <b>Scheme</b>: name regions; brush them on, or fill up to creases, as far as you say. Stack coats, or have a stack
      laid out by your school from the colour that the region is to have; what was there is put aside, and others can
      stand beside it. The sculpt shows what the optics of your paints do over what lies below; where a wash pools, a
      dry brush catches, chips and powder lie and a spray reaches is read from the sculpt’s own surface, how strongly is
      judgement: each coat says which is which, and lets you set it to your own hand. Look at it by the light of its
      cabinet, coat by coat, or against a picture that colours were read off. Borders of light and shade are drawn on
      the sculpt and on a sheet; masks are laid flat at true size, with darts where the skin bulges. Recipes are in
      whole drops, with an honest ΔE00: under 2 a touch-up goes unseen. What each undercoat would cost, a tinted one of
      your choice among them, stands under Light; the order that masks least with the tape, putty or liquid of each step
      under Masks. An order of your own is kept and held against the rules of the craft. Learn a technique first: the
      <RouterLink to="/guide/practice">practice page</RouterLink> has exercises, a body to print for them, and room for
      what came of each try. <b>Bench plan</b>: steps made from the piece, laid on your bench hours;
      <b>bench mode</b> shows one at a time, large: one button, or the space bar, begins it and ends it. What you do
      while the server is away is kept and sent once it is back.
    </p>
    <h2>The workshop</h2>
    <p>
      <b>Calendar</b>: all pieces on everybody’s hours. Pull a step elsewhere and see what it pushes before you keep it;
      ask what is of most use in the time you have; do alike steps of several pieces in one go. Waits follow the air at
      the bench, and cold or damp hours are shut to spraying. <b>Stock</b>: materials by lot; steps that are done take
      their share, and what all planned pieces still need is on the list to buy. <b>Paints</b> get their colour from a
      photo with a grey card, in numbers or by list; a swatch over black says how they hide. On the
      <b>mixing table</b> drag drops and see the mix over black, white and the undercoat, drawn down from one coat to
      twelve; have mixes found for a target, its shadow and light, muted versions, tints of skin. What you use goes into
      the <b>mix book</b>: mixed again for any area, to the drop, and told when another lot would come out different.
    </p>
    <h2>Nothing is lost</h2>
    <p>
      Operations are a list: undo with <kbd>u</kbd>, redo with <kbd>U</kbd>. Changing an early one computes the later
      ones again. Long work goes on when you close the page. Files and measures are kept in the folder
      <code>.undercut</code> beside the program.
    </p>
    <p class="soft">Cautions are short and defer to the safety data sheet of the product and to local rules.</p>
  </article>
</template>

<style scoped>
.guide {
  height: 100%;
  padding: 18px 28px;
}
.guide p {
  max-width: 74ch;
}
h2 {
  margin: 18px 0 4px;
}
</style>
