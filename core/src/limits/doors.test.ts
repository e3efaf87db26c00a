import { describe, expect, it } from 'vitest';
import * as acoustics from '../acoustics/index.js';
import * as alignment from '../alignment/index.js';
import * as auralisation from '../auralisation/index.js';
import * as commissioning from '../commissioning/index.js';
import * as correct from '../correct/index.js';
import * as coverage from '../coverage/index.js';
import * as directivity from '../directivity/index.js';
import * as drawings from '../drawings/index.js';
import * as formats from '../formats/index.js';
import * as geometry from '../geometry/index.js';
import * as jobs from '../jobs/index.js';
import * as layouts from '../layouts/index.js';
import * as level from '../level/index.js';
import * as live from '../live/index.js';
import * as loudspeakers from '../loudspeakers/index.js';
import * as materials from '../materials/index.js';
import * as measure from '../measure/index.js';
import * as native from '../native/index.js';
import * as path from '../path/index.js';
import * as place from '../place/index.js';
import * as processing from '../processing/index.js';
import * as project from '../project/index.js';
import * as room from '../room/index.js';
import * as runs from '../runs/index.js';
import * as shapes from '../shapes/index.js';
import * as signal from '../signal/index.js';
import * as spots from '../spots/index.js';
import * as traces from '../traces/index.js';
import * as tracing from '../tracing/index.js';
import * as views from '../views/index.js';
import * as waves from '../waves/index.js';

const ROOMS = {
  acoustics,
  alignment,
  auralisation,
  commissioning,
  correct,
  coverage,
  directivity,
  drawings,
  formats,
  geometry,
  jobs,
  layouts,
  level,
  live,
  loudspeakers,
  materials,
  measure,
  native,
  path,
  place,
  processing,
  project,
  room,
  runs,
  shapes,
  signal,
  spots,
  traces,
  tracing,
  views,
  waves,
} as const;

const { exponentialSweep, logGrid, whiteNoise } = signal;
const grid = logGrid(50, 5000, 12);
const levels = grid.map((_, i) => -i / 10);
const noise = whiteNoise(4096, 1);
const sweep = exponentialSweep({ rate: 48000, from: 20, to: 20000, durationS: 0.7, levelDbfs: -20 });
const air = { temperatureC: 20, relativeHumidityPercent: 50 };
const walls = Array.from({ length: 6 }, () => Array.from({ length: 8 }, () => 0.2)) as never;
const box: room.BoxRoom = { size: { x: 5, y: 4, z: 3 }, absorption: walls, air };
const corner = { x: 0, y: 0, z: 0 };
const corners = place.rectangle(5, 4);
const flat = { frequency: grid, re: grid.map(() => 1), im: grid.map(() => 0) };
const handle = { frequency: 100, levelDb: 0 };
const map = coverage.gridOver([corners], () => 0, 100);
const mapLevels = new Float64Array(map.columns * map.rows);
const pointWay = { radiator: { kind: 'point' as const }, ahead: 0, left: 0, up: 0, gainDb: 0, filters: [] };
const balloon: directivity.BalloonData = {
  pole: 'front',
  fromPoleDeg: Float64Array.of(0, 90, 180),
  aboutDeg: Float64Array.of(0, 180),
  frequency: Float64Array.of(1000),
  re: [new Float32Array(6).fill(1)],
  im: [new Float32Array(6)],
  hasPhase: true,
};
const click = {
  samples: Float32Array.from({ length: 2048 }, (_, i) => (i === 100 ? 1 : 0)),
  rate: 48000,
  zero: 0,
};
const flatBins = () => new Float64Array(33).fill(1);
const spectra: live.CrossSpectra = {
  frequency: Float64Array.from({ length: 33 }, (_, k) => 750 * k),
  ...{ reference: flatBins(), measured: flatBins(), re: flatBins(), im: new Float64Array(33), blocks: 10 },
};
const curve: live.TransferCurve = { frequency: grid, re: levels, im: levels, coherence: levels };
const hallShape = project.newPlace({
  name: 'R',
  kind: 'hall',
  size: { x: 9, y: 6, z: 4 },
  layoutId: 'none',
}).shape;
const field = {
  sources: [],
  points: Float64Array.of(1, 2, 3),
  frequencies: Float64Array.of(100),
  speed: 343,
  air,
  ground: null,
};
const mapRequest = {
  channels: [],
  points: Float64Array.of(1, 2, 3),
  band: { kind: 'third', centre: 1000 },
  how: 'coherent',
  signalDbfs: -20,
  speed: 343,
  air,
  ground: null,
};
const section = { kind: 'peak' as const, frequency: 100, gainDb: 3, q: 1 };

/** Arguments that are good, and the number in them that is spoilt: by its place, as in `1.rate`, or `0.*` for one of many. */
type Door = { good: unknown[]; spoil: string[]; by?: number[] };
const BROKEN = [NaN, Infinity];
const door = (good: unknown[], spoil: string[], by: number[] = BROKEN): Door => ({ good, spoil, by });

const noiseForDevices = whiteNoise(8192, 1);
const peakingShape = { kind: 'peaking' as const, hz: 100, gainDb: 3, q: 1 };
const readCurve = { ...flat, coherence: grid.map(() => 1), hasPhase: true };
const wholeCurve = { from: 50, to: 5000, levelIsFree: true, rate: null };

/** Every function that takes bare numbers or samples from outside. */
const DOORS: Record<string, Door[]> = {
  'live.quietFigures': [door([noiseForDevices, 48_000], ['0.*', '1'])],
  'live.toneFigures': [door([noiseForDevices, 48_000, 1000], ['0.*', '1', '2'])],
  'shapes.octavesOfQ': [door([1.4], ['0'], [NaN, 0])],
  'shapes.qOfOctaves': [door([1], ['0'], [NaN, -1])],
  'shapes.poleFactors': [door(['Bessel', 4], ['1'], [NaN, 0, 13])],
  'shapes.needShape': [door([peakingShape], ['0.hz', '0.gainDb', '0.q'])],
  'shapes.undershootDb': [door([peakingShape], ['0.hz', '0.gainDb', '0.q'])],
  'shapes.shapeTrace': [
    door([[peakingShape], grid], ['0.0.hz', '0.0.gainDb', '0.0.q', '1.*']),
    door([[peakingShape], grid, 48_000], ['0.0.hz'], [NaN, 24_001]),
  ],
  'shapes.readShapes': [door([readCurve, [{ kind: 'peaking' }], wholeCurve], ['2.from', '2.to'])],
  'acoustics.findDecay': [
    door(
      [noise, 48000, { start: 0, end: 4096, slowestHz: 100 }],
      ['0.*', '1', '2.start', '2.end', '2.slowestHz'],
    ),
    door([noise, 48000, { start: 0, end: 4096, slowestHz: 100 }], ['2.end'], [-1, 9999]),
  ],
  'acoustics.expectedFigures': [door([10, 1, 1000], ['0', '1', '2'], [NaN, 0, -1])],
  'acoustics.indexOfMatrix': [
    door(
      [Array.from({ length: 7 }, () => Array.from({ length: 14 }, () => 0.5))],
      ['0.3.5'],
      [NaN, -0.1, 1.1],
    ),
  ],
  'acoustics.modulationTransfer': [
    door([noise, 1000, 2], ['0.*', '1', '2'], [NaN, Infinity]),
    door([noise, 1000, 2], ['1', '2'], [0, -1]),
  ],
  'alignment.alignCrossover': [
    door(
      [[flat], [flat], [{ highPass: null, lowPass: null }], 48000, 0.01],
      ['3', '4'],
      [NaN, Infinity, 0, -1],
    ),
  ],
  'auralisation.chanceOf': [door([3, 5, 0.5], ['0', '1', '2'], [NaN, Infinity, -1])],
  'auralisation.safeGain': [door([[[noise]], [0]], ['1.0'])],
  'commissioning.levelSteps': [door([-60, -20], ['0', '1'])],
  'alignment.notLed': [
    door([{ laterS: 0.01, louderDb: 0 }], ['0.laterS'], [NaN, Infinity]),
    door([{ laterS: 0.01, louderDb: 0 }], ['0.louderDb'], [NaN]),
  ],
  'place.endFireStepMs': [door([1.2, 343], ['0', '1'], [NaN, Infinity, -1])],
  'place.gradientDelayMs': [door([0.9, 180, 343], ['0', '1', '2'], [NaN, Infinity, -1])],
  'coverage.bandPlan': [door([1000, 1, 5], ['0', '1', '2'], [NaN, Infinity, -1])],
  'coverage.evenedOut': [door([map, mapLevels, 1], ['2'], [NaN, Infinity, -1])],
  'coverage.gridOver': [door([[corners], () => 0, 100], ['2'], [NaN, Infinity, 0])],
  'coverage.fieldPower': [
    door([field, 'coherent'], ['0.points.*', '0.frequencies.*', '0.speed']),
    door([field, 'coherent'], ['0.frequencies.*', '0.speed'], [0, -1]),
  ],
  'coverage.responseAtPoint': [
    door([mapRequest, corner, grid], ['0.signalDbfs', '0.speed', '1.x', '2.*'], [NaN, Infinity]),
  ],
  'coverage.uprightGrid': [
    door([hallShape, { x: 1, y: 1 }, 30, 100], ['1.x', '1.y', '2', '3']),
    door([hallShape, { x: 1, y: 1 }, 30, 100], ['3'], [0, -1]),
  ],
  'coverage.levelMap': [
    door([mapRequest], ['0.points.*', '0.band.centre', '0.signalDbfs', '0.speed']),
    door([mapRequest], ['0.band.centre', '0.speed'], [0, -1]),
  ],
  'directivity.capGain': [door([3, 0.5], ['0', '1'], [NaN, Infinity, 0, -1])],
  'directivity.crossoverTrace': [
    door([{ kind: 'low-pass', frequency: 1000, order: 4 }, 100], ['0.frequency'], [NaN, Infinity, 0, -1]),
  ],
  'live.findDelay': [
    door([spectra, 48000, { from: 100, to: 1000 }], ['1', '2.from', '2.to'], [NaN, Infinity, 0, -1]),
  ],
  'live.mergedCurve': [door([[curve, curve], [500]], ['1.0'], [NaN, Infinity, -1])],
  'live.transferCurve': [door([spectra, grid], ['1.*'])],
  'directivity.axisTrace': [
    door([{ kind: 'curve', frequency: grid, levelDb: levels }, grid], ['0.frequency.*', '0.levelDb.*']),
  ],
  'directivity.layerOfData': [door([balloon, 1000], ['1'], [NaN, Infinity, 0, -1])],
  'directivity.needBalloonData': [
    door([balloon], ['0.fromPoleDeg.*', '0.aboutDeg.*', '0.frequency.*', '0.re.0.*', '0.im.0.*']),
  ],
  'loudspeakers.guessLoudspeaker': [
    door(
      [{ kind: 'two ways', coneIn: 8, widthM: 0.3, heightM: 0.5 }],
      ['0.coneIn', '0.widthM', '0.heightM'],
      [NaN, Infinity, 0, -1],
    ),
  ],
  'loudspeakers.polarFromTraces': [
    door(
      [[{ impulse: click, aboutDeg: 0, angleDeg: 0, distanceM: 1, microphone: null }], 0.005],
      ['0.0.distanceM', '1'],
      [NaN, Infinity, 0, -1],
    ),
  ],
  'directivity.layerOf': [door([[pointWay], 100, 343], ['1', '2'], [NaN, Infinity, 0, -1])],
  'correct.correctionFir': [
    door(
      [grid, levels, { taps: 1024, rate: 48000, style: 'minimum' }],
      ['1.*', '2.taps', '2.rate'],
      [NaN, Infinity, -Infinity],
    ),
    door([grid, levels, { taps: 1024, rate: 48000, style: 'minimum' }], ['2.taps', '2.rate'], [0, -8, 1e9]),
  ],
  'correct.preRinging': [door([noise, 48000], ['1'], [NaN, Infinity, 0, -1])],
  'layouts.layoutPosition': [
    door(
      [layouts.LAYOUTS[3]!.channels[0], { position: { x: 0, y: 0, z: 0 }, facingDeg: 0 }, 2],
      ['1.facingDeg', '2'],
      [NaN, Infinity],
    ),
  ],
  'path.sectionAtRate': [
    door(
      [{ kind: 'peak', frequency: 1000, gainDb: 3, q: 1 }, 48000, 96000],
      ['1', '2'],
      [NaN, Infinity, 0, -1],
    ),
  ],
  'correct.targetCurve': [
    door([[handle], grid], ['0.0.frequency'], [NaN, 0, -5]),
    door([[handle], grid], ['0.0.levelDb']),
  ],
  'level.loudness': [door([[noise], 48000], ['0.0.*', '1']), door([[noise], 48000], ['1'], [0, -48000])],
  'level.loudnessSections': [door([48000], ['0'], [NaN, Infinity, 0, -1])],
  'level.magnitudeAt': [
    door([[signal.peaking(100, 3, 1, 48000)], 100, 48000], ['1', '2'], [NaN, Infinity, -1]),
  ],
  'level.SoundLevelMeter': [door([48000], ['0'], [NaN, Infinity, 0])],
  'level.weightingDb': [door(['A', 1000], ['1'], [NaN, Infinity, 0, -1])],
  'level.weightingSections': [door(['A', 48000], ['1'], [NaN, Infinity, 0])],
  'measure.cutImpulse': [door([noise, 48000, 100, 1000], ['2', '3'], [NaN, Infinity, -1])],
  'measure.deconvolve': [door([whiteNoise(40000, 2), sweep], ['0.*'])],
  'measure.noiseSpectrum': [door([noise, 48000, 100, 5000], ['2', '3'], [NaN, Infinity, 0])],
  'measure.thirdOctaves': [door([100, 5000], ['0', '1'], [NaN, Infinity, 0, -1])],
  'measure.windowImpulse': [
    door(
      [
        { samples: noise, rate: 48000, zero: 100 },
        { centreS: 0, leftS: 0.01, rightS: 0.02 },
      ],
      ['1.centreS', '1.leftS', '1.rightS'],
    ),
    door(
      [
        { samples: noise, rate: 48000, zero: 100 },
        { centreS: 0, leftS: 0.01, rightS: 0.02 },
      ],
      ['1.leftS', '1.rightS'],
      [0, -1],
    ),
  ],
  'path.crossoverBiquads': [
    door(
      ['highpass', { kind: 'Butterworth', order: 4, frequency: 80 }, 48000],
      ['1.order', '1.frequency', '2'],
      [NaN, Infinity, 0, -3],
    ),
    door(['highpass', { kind: 'Linkwitz-Riley', order: 4, frequency: 80 }, 48000], ['1.order'], [1, 3, 5]),
  ],
  'path.sectionBiquad': [
    door([section, 48000], ['0.frequency', '0.gainDb', '0.q', '1']),
    door([section, 48000], ['0.frequency', '0.q', '1'], [0, -1]),
  ],
  'path.signalPath': [door([48000, { gainDb: 0, delayS: 0 }], ['0', '1.gainDb', '1.delayS'])],
  'room.airAbsorption': [
    door([1000, air], ['0', '1.temperatureC', '1.relativeHumidityPercent']),
    door([1000, air], ['1.relativeHumidityPercent'], [-1, 101]),
    door([1000, air], ['0', '1.temperatureC'], [-300]),
  ],
  'room.checkBox': [door([box], ['0.size.x', '0.absorption.2.3'], [NaN, Infinity, -1])],
  'waves.boxWaves': [
    door(
      [
        box,
        [{ position: corner, delayS: 0, gain: 1 }],
        corner,
        { rate: 500, size: 64, upToHz: 60, octaves: 1 },
      ],
      ['0.size.x', '0.absorption.2.3', '3.upToHz', '3.octaves'],
      [NaN, Infinity, -1],
    ),
  ],
  'place.seatsOf': [
    door(
      [
        {
          id: 'a',
          name: 'A',
          outline: corners,
          facingDeg: 180,
          floorM: 0,
          riseM: 0,
          earM: 1.2,
          rowM: 1,
          seatM: 1,
        },
        { floorRise: 0 },
      ],
      ['0.rowM', '0.seatM'],
      [NaN, 0, -1],
    ),
  ],
  'room.facetArrivals': [
    door([[], corner, { ...corner, x: 2 }, 2, 50], ['3', '4'], [NaN, -1]),
    door([[], corner, { ...corner, x: 2 }, 2, 50], ['3'], [Infinity, 61, 1.5]),
  ],
  'room.speedOfSound': [door([20], ['0'], [NaN, Infinity, -300])],
  'signal.allPass': [door([1000, 1, 48000], ['0', '1', '2'], [NaN, Infinity, 0, -1])],
  'signal.binFrequencies': [door([1024, 48000], ['0', '1'], [NaN, Infinity, 0, -1])],
  'signal.butterworth': [door(['highpass', 4, 100, 48000], ['1', '2', '3'], [NaN, Infinity, 0, -1])],
  'signal.convolve': [door([noise, noise], ['0.*', '1.*'])],
  'signal.convolveLong': [door([whiteNoise(70000, 1), noise], ['0.*', '1.*'])],
  'signal.delayTrace': [door([flat, 1], ['1'])],
  'signal.emptySpectrum': [door([1024], ['0'], [NaN, Infinity, 0, -1])],
  'signal.exponentialSweep': [
    door(
      [{ rate: 48000, from: 20, to: 20000, durationS: 1, levelDbfs: -20 }],
      ['0.rate', '0.from', '0.to', '0.durationS', '0.levelDbfs'],
      [NaN, Infinity, -Infinity],
    ),
  ],
  'signal.fftSizeFor': [door([100], ['0'], [NaN, Infinity, -1])],
  'signal.hannRise': [door([16], ['0'], [NaN, Infinity, -1, 1.5])],
  'signal.hannWindow': [door([16], ['0'], [NaN, Infinity, -1, 1.5])],
  'signal.harmonicLead': [door([sweep, 2], ['1'], [NaN, Infinity, 0, -1])],
  'signal.highShelf': [
    door([100, 3, 1, 48000], ['0', '1', '2', '3']),
    door([100, 3, 1, 48000], ['0', '2', '3'], [0, -1]),
  ],
  'signal.inSteps': [door([1, 0.1], ['0', '1']), door([1, 0.1], ['1'], [0, -1])],
  'signal.interpolateLog': [door([grid, levels, grid], ['0.*', '1.*'])],
  'signal.interpolateSmooth': [door([grid, levels, grid], ['0.*', '1.*'])],
  'signal.linkwitzRiley': [door(['highpass', 4, 100, 48000], ['1', '2', '3'], [NaN, Infinity, 0])],
  'signal.logGrid': [door([20, 20000, 48], ['0', '1', '2'], [NaN, Infinity, 0, -1])],
  'signal.lowShelf': [
    door([100, 3, 1, 48000], ['0', '1', '2', '3']),
    door([100, 3, 1, 48000], ['0', '2', '3'], [0, -1]),
  ],
  'signal.median': [door([[1, 2, 3]], ['0.1'], [NaN])],
  'signal.minimumPhase': [door([Float64Array.of(1, 1, 1, 1, 1)], ['0.2'], [NaN, Infinity, 0, -1])],
  'signal.minimumPhaseOfLog': [door([Float64Array.of(1, 1, 1, 1, 1)], ['0.2'], [NaN, Infinity, -Infinity])],
  'signal.octaveBands': [
    door([3, 100, 5000], ['0', '1', '2'], [NaN, Infinity, 0, -1]),
    door([3, 100, 5000], ['0'], [1.5, 99]),
  ],
  'signal.peaking': [
    door([100, 3, 1, 48000], ['0', '1', '2', '3']),
    door([100, 3, 1, 48000], ['0', '2', '3'], [0, -1]),
  ],
  'signal.pinkNoise': [door([100, 48000, 1], ['0', '1', '2'], [NaN, Infinity])],
  'signal.resampleFir': [
    door([noise, 48000, 96000], ['0.*', '1', '2']),
    door([noise, 48000, 96000], ['1', '2'], [0, -1]),
  ],
  'signal.seededRandom': [door([1], ['0'])],
  'signal.shapedNoise': [door([100, 48000, 1, () => 1], ['0', '1', '2'])],
  'signal.smoothLevels': [
    door([grid, levels, 3], ['0.*', '1.*', '2']),
    door([grid, levels, 3], ['2'], [0, -1, 49]),
  ],
  'signal.smoothPower': [door([grid, grid, 3], ['0.*', '1.*', '2'])],
  'signal.smoothVariable': [door([grid, levels], ['0.*', '1.*'])],
  'signal.whiteNoise': [door([100, 1], ['0', '1']), door([100, 1], ['0'], [-1, 1.5])],
};

/** Those that refuse nothing by themselves, and why that is right. */
const OTHERS: Record<string, string[]> = {
  'a formula of one value, or the innermost loop of something that has checked its input: NaN stays NaN':
    'native.nativeInstance geometry.meanPoint place.intoRoom runs.octavesByWaves runs.lowsOctaves runs.lowsReachHz alignment.delayForOffset path.allPassTurn path.allPassTurns path.allPassAsSection tracing.directionIn tracing.evennessOf tracing.sectorOf tracing.stretchOf tracing.directionsHeard tracing.evennessHeard runs.instrumentEmission tracing.mendMesh place.roomFacets place.roomSurfaces place.roomVolume place.startingFaces place.withRoomSurface place.fitsRoom place.isOfVariant place.surfacesAsVariant place.withVariant waves.admittanceOf waves.swallowedBy waves.cellAt waves.roomGrid waves.halfWaves waves.isInRoom waves.waveModePressure waves.waveModeSteps waves.waveField waves.waveSteps runs.lowsSteps runs.directLevels runs.gridOfRun runs.lowsAt runs.lowsOf runs.lowsPlan runs.ambisonicsOf runs.earsOfHearer signal.firstOrderAllPass alignment.lateS coverage.bandMean coverage.inFrame coverage.uprightFrame directivity.dataGain directivity.isWithinData directivity.radiationLayer loudspeakers.seenFrom coverage.crossings coverage.firstArrivalS coverage.isoLines coverage.levelFigures coverage.rowsApartDb coverage.mirrored coverage.sourceField directivity.layerGain directivity.pistonGain directivity.radiatorGain directivity.shareAbout directivity.stepsOffAxis directivity.writeTaps directivity.beamwidthDeg directivity.directivityIndexDb directivity.polarDb place.earHeightAt place.floorPlane geometry.cross geometry.dot geometry.lengthOf geometry.minus geometry.areaOf geometry.axesOf geometry.boundsOf geometry.clipped geometry.crossingSides geometry.distanceBetween geometry.distanceToSides geometry.horizontalAim geometry.integralOver geometry.isWithin geometry.pointAlong geometry.signedArea place.nearestM place.rectangle place.snapped room.facetOrder room.octaveShares room.volumeOf live.History live.noiseCriterion live.noiseRating live.blockSizes live.curveGroupDelayS live.curveLevelDb live.curvePhaseDeg live.liveGrid shapes.besselPolynomial signal.addTo signal.biquadAt signal.biquadSpectrum signal.biquadTrace signal.constantTrace signal.cosineStep signal.dbOfGain signal.dbOfPower signal.divideTraces signal.fftSizeOf signal.filterBiquads signal.gainOfDb signal.inverseRealFft signal.isBinAxis signal.levelDb signal.multiplyTraces signal.powerOf signal.powerOfDb signal.realFft signal.scaleTrace signal.seedFrom'.split(
      ' ',
    ),
  'takes a file, which its reader refuses with a FormatError where it is broken, or a model that such a reader has checked':
    'formats.readNumberTable formats.readNumbers formats.textLines formats.flacLength traces.curveOfTable traces.likelyMeanings drawings.drawnEdges drawings.examineModel drawings.laidAt drawings.laidOutline drawings.isModelName drawings.isPictureName drawings.likelyUnitM drawings.likelyUp drawings.modelBounds drawings.modelReport drawings.outlineOf drawings.pictureSize drawings.placedModel drawings.readModel drawings.triangleCount'.split(
      ' ',
    ),
  'takes the project or parts of it, which `checkProject` refuses where they are broken':
    'project.takeVoiceFirst project.isInOrder project.changedSince runs.rayGroupOf runs.raysOfGroup runs.partsOf runs.sentBy runs.settingOfRun runs.traceGroup runs.tracedReceiver runs.wholeGroups project.runFaces project.withRunIds project.partsTogether project.isFromModels project.leavesOf project.changedBelow project.noted project.seenAsItIs project.systemGroups project.systemSteps place.seatsOfPlace project.plainLook project.keptById project.channelSettings project.takeAligned project.addRays project.raysFrom project.allPassesOffered project.isPlain project.newStep project.plainSetting project.playedDelays project.settingOf project.stepsBelow project.withSource coverage.arrivalMap coverage.fieldPowerInSteps coverage.levelMapInSteps coverage.mapFrequencies coverage.radiationView coverage.coverageChannel coverage.settingsPath place.boxWalls place.drawnShape place.boxesOf place.extentOf place.facetArea place.facetsOf place.floorArea place.floorAt place.freeBoxesOf place.roofAt place.roofPlanes place.seatsOrNone place.shapeVolume processing.limitsOf project.abbreviated project.centreLine project.chosenPoints project.emptyProject project.freeOutput project.layoutLoudspeakers project.mirroredName project.isCircular project.newBench project.newReading project.nothingPublished project.newLive project.plainSweepLook project.isAsItWas project.lookOf project.withLook project.plainView project.restsOn project.newPlace project.newProject project.placeProblems project.plainLoudspeaker project.plainShape project.wayM project.withAligned project.withDistributed project.withDuplicates project.withMirrored project.withMoved project.measuredIds project.withoutChosen project.withoutThings jobs.DesignDesk jobs.TraceShelf jobs.ViewDesk jobs.channelRequests jobs.designGround jobs.homeSum jobs.sourceKey jobs.sweepsUsed jobs.togetherIds jobs.traceRef jobs.viewedRef project.arraysOf project.enclosedIds project.withArrayIds project.withFileIds project.subLimits project.roundFindings project.roundNoise project.channelFindings project.checkProject project.conditionsNow project.crossingS project.designKey project.familiesOf project.filterPart project.isCrossed project.levelAdvice project.shareAlignment project.staleSteps project.suggestedAlignment project.takeCrossover project.takeEvenSeats project.takeLevels project.firstVariant project.fittedOf project.freeName project.isSpotTaken project.loudspeakerById project.loudspeakerName project.loudspeakerOn project.lowInput project.marginNow project.measuredKey project.migrateProject project.movedSpots project.oddSweeps project.proposeFamilies project.readProjectFile project.roundOf project.shortHash project.staleSweeps project.sweepOf project.targetOf project.travelS project.untellable project.usableSpots project.variantOf project.verdictKey project.verifiedIds project.verifiedOf project.withCorrection project.withMember project.writeProjectFile'.split(
      ' ',
    ),
  'takes text or bytes, or a table to be written, and says what is wrong with it as a FormatError':
    'formats.readNpy formats.writeNpy loudspeakers.extentWords loudspeakers.readPolarTable loudspeakers.writePolarTable loudspeakers.readAes69 loudspeakers.radiatingFrom loudspeakers.radiatingGuess loudspeakers.readLoudspeakerFile formats.FormatError layouts.offLayout formats.biquadIn formats.responseReadings formats.calibrationReadings formats.bytesOfText formats.crc32 formats.packFiles formats.readCalibrationText formats.readResponseText formats.readTargetText formats.impulseHead formats.needImpulse formats.readImpulseHead formats.readImpulseText formats.writeImpulseText formats.readWav formats.sectionsCsv formats.sectionsJson formats.sectionsText formats.textOfBytes formats.unpackFiles formats.writeResponseText formats.writeTargetText formats.writeWav'.split(
      ' ',
    ),
  'takes samples, responses, spectra or settings that another function of core has made or checked, and refuses what it cannot use by itself':
    'auralisation.renderResponses runs.playedImpulse runs.playedRays runs.playedWaves runs.wavesFrom runs.lowsPlayed runs.sentTogether runs.energyByWaves runs.withRows runs.lowsOfRunSteps directivity.sphereGain runs.earResponses runs.earsOfHead runs.packedHead runs.isPackedHead formats.readAes69Head runs.curvedSurfaces runs.findFocus runs.earsOf room.tuneAbsorption coverage.voiceAtSeats alignment.heardFirst alignment.proposeVoiceFirst alignment.voiceBoundDb runs.findFlutter runs.echoMaker tracing.planeThrough runs.suggestRun runs.timesTheRays acoustics.disturbedShare room.addImpulse room.joinOctaves coverage.channelEmission runs.talkerEmission runs.voiceLevels runs.heardInRun runs.readReceiver runs.speedIn runs.pressureResponse runs.reflectionDensity tracing.heardInTurn tracing.emissionDirections tracing.emissionInto tracing.emissionOf tracing.heardTogether tracing.heardTogetherInTurn tracing.checkFaces acoustics.echoCriterion acoustics.interauralCorrelation live.CrossSpectraAverager alignment.playedAs alignment.impulseTogether alignment.laterBy alignment.louderPerOctave alignment.suggestCrossovers coverage.pressureAtPoints coverage.meetingLines coverage.meetingPlaces coverage.groupPattern coverage.measuredPattern alignment.PhaseTables alignment.asSet alignment.together alignment.findJoint alignment.jointEfficiency alignment.provenSum alignment.gainOntoTarget alignment.readMeeting alignment.suggestAlignments alignment.alignmentAt alignment.findAlignments alignment.levelsApart alignment.lossDb alignment.readPair live.joinedPair formats.flacHead formats.withFlacComment formats.openAes69 formats.readAes69Responses formats.writeAes69Responses live.GeneratorPlayer live.InputMeter live.LiveDesk live.PairStream traces.alikeWithin traces.bandLevelDb traces.spectrumOnGrid traces.windowedCurve traces.withoutMicrophone traces.workOut traces.allPassed traces.averageOfCurves traces.curveOfImpulse traces.peakOf traces.curveOfShapes traces.impulseOfCurve traces.timeZeroOf traces.delayRemoved traces.differenceOfCurves traces.evaluateFormula traces.excessPhasePart traces.extremeOfCurves traces.inverseOfCurve traces.minimumPhasePart traces.onSharedPoints traces.productOfCurves traces.ratioOfCurves traces.splicedCurves traces.sumOfCurves traces.viewedCurve traces.writeCurveText live.SpectrumAnalyser live.lessNoise live.powerInBands live.averageCurves live.curvesApart live.incoherentStretch live.smoothedCurve live.generatorSource live.channelsApart live.gainSteps live.ratioOf live.impulseOf live.withoutDelay signal.PartitionedInput signal.partitionFilter acoustics.bandGain acoustics.bandSignals acoustics.bandSpectrum acoustics.fitLine acoustics.octaveEnergy acoustics.overSpots acoustics.reverberation acoustics.roomFigures acoustics.speechTransmission alignment.averageLevel alignment.highPassed alignment.levelApart alignment.levelsAndDelays alignment.lowPassed alignment.randomSettings alignment.readCrossover alignment.seatDeviation alignment.sidesOf alignment.subsTogether alignment.sumOfSubs alignment.summationOf auralisation.auralise auralisation.candidateLevels auralisation.listeningMaterial auralisation.matchLoudness auralisation.pluck auralisation.pluckedStrings auralisation.renderCandidates commissioning.describeNoise commissioning.disagreements commissioning.findMisfits commissioning.fitPositions commissioning.impossibleTriangles commissioning.indistinguishable commissioning.toleranceM commissioning.travelDifference correct.averagePower correct.averageSpots correct.channelAtHome correct.correctHeadphones correct.designChannel correct.designMagnitude correct.designWithBass correct.exactChannel correct.withinProcessor correct.excessPhase correct.findRollOffs correct.firLevelDb correct.fitSections correct.measuredChannel correct.headphoneCorrection correct.isNarrow correct.leftAlone correct.lessCalibration correct.mainTap correct.meanInSpan correct.ownSpan correct.placeTarget correct.worstAhead correct.keptEnds correct.placeOverSpan correct.spanEdges processing.guardedPeakDb correct.predictImpulse correct.predictPower correct.extendedSpan correct.rmsDistance correct.rollOffDb correct.sectionsErrorDb correct.seeTrace correct.shapeDistance correct.sharedPhase correct.spanWeight correct.targetShape correct.nonMinimumPhaseShare level.CalibratorTone measure.aboveNoiseDb measure.analyseSweep measure.analyseTake measure.averageRepeats measure.bandEnergy measure.continueLows measure.divideOut measure.findArrival measure.findClipping measure.findDisturbances measure.findPolarity measure.findTimingClick measure.harmonicCurves measure.impulseFrom measure.judgeSweep measure.likeness measure.loopbackTime measure.measureRoundTrip measure.noiseMovesDb measure.ownMargin measure.packHarmonics measure.powerOnGrid measure.referenceResponse measure.responseLevels measure.responseMargins measure.responseOnGrid measure.signalToNoise measure.splitHarmonics measure.timingClick measure.trimNoise measure.unpackHarmonics measure.usableBand measure.weakestBand path.addLevel path.exchangeTrace path.fineSpectrum path.headroomOf path.inSeries path.largestOfSum path.pathGain path.pathTrace path.responseAt path.sectionsLevelDb path.sumPaths path.sumPathsAtPoints path.sumPathsInTime path.throughFilters processing.buildOutputs processing.crossoverText processing.drivesOf processing.feedPath processing.feedText processing.heardLevel processing.outputBiquads processing.outputPath processing.outputSource processing.plainOutput processing.plainSub processing.playedSpan processing.settingChanges processing.subPath room.boxArrivals room.loudspeakerSections room.loudspeakerSpectrum room.visitImages place.plainFace place.surfacesOf place.withSurface room.boxModes room.modePressure room.planModes room.planPressure room.shapeModes room.shapeModePressure room.roomStatistics room.shortenedBy tracing.sceneOf tracing.traceRays tracing.Tracer tracing.heardAt tracing.mirroredArrivals tracing.energyFigures tracing.energyOverTime tracing.figuresOf tracing.speechIndexOf tracing.sureFigures tracing.inNoticeable materials.readMaterials materials.writeMaterials shapes.comparePublished shapes.mirrorApart shapes.shapesLevelDb signal.centralDifferences signal.leastSquares signal.solveLinear signal.sweepSpectra spots.averageMovement spots.groundPlane spots.joinFloorAndEar spots.layOutSpots spots.movedMicrophone spots.tooClose views.beforeAndAfter views.decayMap views.energyTimeDb views.excessGroupDelay views.findCorners views.findReflections views.findResonances views.groupDelay views.minimumPhaseOf views.peaksAndDips views.ringingS views.stepResponse views.timeCurves views.unwrappedPhase views.windowedLevelDb views.windowedPhaseDeg'.split(
      ' ',
    ),
};

/** A copy of `value` in which the number at `place` is another one. */
function spoilt(value: unknown, place: string[], by: number): unknown {
  const [key, ...rest] = place;
  if (key === undefined) return by;
  if (ArrayBuffer.isView(value)) {
    const copy = (value as Float64Array).slice();
    copy[key === '*' ? copy.length >> 1 : Number(key)] = by;
    return copy;
  }
  if (Array.isArray(value))
    return value.map((v: unknown, i) => (String(i) === key ? spoilt(v, rest, by) : v));
  return { ...(value as object), [key]: spoilt((value as Record<string, unknown>)[key], rest, by) };
}

const functionOf = (name: string): ((...args: unknown[]) => unknown) => {
  const [where, what] = name.split('.') as [keyof typeof ROOMS, string];
  const found = (ROOMS[where] as Record<string, unknown>)[what] as new (...args: unknown[]) => unknown;
  return /^[A-Z]/.test(what) ? (...args) => new found(...args) : (found as never);
};

describe('what is no number, or means nothing, is refused at the door with its value', () => {
  it.each(Object.keys(DOORS))('%s', (name) => {
    const call = functionOf(name);
    for (const { good, spoil, by = BROKEN } of DOORS[name]!) {
      expect(() => call(...good), 'good arguments').not.toThrow();
      for (const place of spoil)
        for (const value of by) {
          const bad = spoilt(good, place.split('.'), value) as unknown[];
          expect(() => call(...bad), `${place} = ${value}`).toThrow(RangeError);
          expect(() => call(...bad), `${place} = ${value}`).toThrow(String(value));
        }
    }
  });
});

it('every exported function has its place in this table', () => {
  const exported = Object.entries(ROOMS).flatMap(([where, all]) =>
    Object.entries(all).flatMap(([what, value]) => (typeof value === 'function' ? [`${where}.${what}`] : [])),
  );
  const known = [...Object.keys(DOORS), ...Object.values(OTHERS).flat()];
  expect(known.filter((name) => !exported.includes(name))).toEqual([]);
  expect(exported.filter((name) => !known.includes(name))).toEqual([]);
});
