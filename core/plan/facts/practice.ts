import type { Caution } from '../materials/cautions'
import { message } from '../../words/message'
import type { Said } from '../../words/say'

/** Exercises on a failed print or the practice body: what is done, and by what one sees that it went well. */
export const EXERCISES = [
  {
    id: 'blend',
    name: message('steps.practice.aBlendFromShadeTo'),
    where: message('steps.practice.theHalfBall'),
    does: [
      message('steps.practice.twoCoatsOfTheBase'),
      message('steps.practice.mixFiveStepsFromShade'),
      message('steps.practice.paintEachStepWhereThe'),
    ],
    look: [message('steps.practice.noStepShowsAtArm'), message('steps.practice.theLightestPlaceIsWhere')],
    cautions: [],
  },
  {
    id: 'folds',
    name: message('steps.practice.lightAndShadeOnCloth'),
    where: message('steps.practice.theFolds'),
    does: [message('steps.practice.baseThenShadeIntoThe'), message('steps.practice.lightAlongTheRidgesThinner')],
    look: [message('steps.practice.noLightToneIsIn'), message('steps.practice.allRidgesAreLitFrom')],
    cautions: [],
  },
  {
    id: 'dryBrush',
    name: message('steps.practice.dryBrushing'),
    where: message('steps.practice.theRibs'),
    does: [message('steps.practice.wipeTheBrushOnPaper'), message('steps.practice.strokeAcrossTheRibsFrom')],
    look: [message('steps.practice.theFinestRibsShowThe'), message('steps.practice.noStreaksNoChalk')],
    cautions: ['dust'],
  },
  {
    id: 'wash',
    name: message('steps.practice.aWashInRecesses'),
    where: message('steps.practice.theGrooves'),
    does: [message('steps.practice.floodOneGrooveAtA'), message('steps.practice.removeWhatIsOnThe')],
    look: [message('steps.practice.theGrooveIsDarkTo'), message('steps.practice.noRingWhereItDried')],
    cautions: [],
  },
  {
    id: 'eyes',
    name: message('steps.practice.aPairOfEyes'),
    where: message('steps.practice.theTwoBallsUnderLids'),
    does: [message('steps.practice.offWhiteBallDarkRing'), message('steps.practice.theThinDarkUpperLid')],
    look: [message('steps.practice.bothLookAtOnePoint'), message('steps.practice.theWhiteDoesNotGlare')],
    cautions: [],
  },
  {
    id: 'gloss',
    name: message('steps.practice.glossOverMetalMattBeside'),
    where: message('steps.practice.theSmallBeadAndThe'),
    does: [message('steps.practice.blackThenMetalOnThe'), message('steps.practice.maskItWithPuttyMist')],
    look: [message('steps.practice.theMetalHasNotDulled'), message('steps.practice.theEdgeBetweenGlossAnd')],
    cautions: ['spray'],
  },
] as const satisfies readonly {
  id: string
  name: Said
  where: Said
  does: readonly Said[]
  look: readonly Said[]
  cautions: readonly Caution[]
}[]
