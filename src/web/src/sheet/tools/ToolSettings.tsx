import { Segments, Switch } from '../../ui/Segments';
import { Slider } from '../../ui/Slider';
import { allKinds, itemKinds, type ShapeChoice, shapeKinds } from '../hand/tool';
import type { Tools } from './useTools';
import { ColourWells } from './ColourWells';
import { ShapeFace } from './ShapeFace';
import { Unfolded } from './Unfolded';

export function EraserSettings({ tools, onClear }: { tools: Tools; onClear: () => void }) {
  const { eraser, settings } = tools;
  const change = (changed: Partial<typeof eraser>) => tools.change('eraser', changed);
  return (
    <Unfolded title="Eraser" testId="eraser-settings">
      <Segments
        label="What goes"
        columns={1}
        value={eraser.way}
        onValue={(way) => change({ way })}
        options={[
          { value: 'touched', words: 'What it touches', testId: 'erase-part' },
          { value: 'whole', words: 'Whole strokes and shapes', testId: 'erase-whole' },
          { value: 'loop', words: 'All inside a loop', testId: 'erase-loop' },
        ]}
      />
      {eraser.way !== 'loop' && (
        <Slider
          label="Size"
          value={eraser.size}
          min={30}
          max={2000}
          step={10}
          testId="eraser-size"
          words={(size) => `${(size / 100).toFixed(1)} mm`}
          onValue={(size) => change({ size })}
        />
      )}
      <Switch
        label="Only highlighter"
        on={eraser.onlyHighlighter}
        testId="erase-highlighter"
        onChange={(onlyHighlighter) => change({ onlyHighlighter })}
      />
      <Switch
        label="Only the layer I write on"
        on={eraser.onlyLayer}
        testId="erase-layer"
        onChange={(onlyLayer) => change({ onlyLayer })}
      />
      <Switch
        label="Back to the pen afterwards"
        on={eraser.back}
        testId="erase-back"
        onChange={(back) => change({ back })}
      />
      <Switch
        label="A tight zig-zag scratches out"
        on={settings.scratch}
        testId="scratch"
        onChange={(scratch) => tools.changeSettings({ scratch })}
      />
      <button
        type="button"
        className="btn btn-ghost mt-2 h-10 min-h-10 w-full border-base-300 text-[13px] font-normal"
        data-testid="clear-page"
        onClick={onClear}
      >
        Clear the page
      </button>
    </Unfolded>
  );
}

export function LoopSettings({ tools, onAll, onPaste }: { tools: Tools; onAll: () => void; onPaste: () => void }) {
  const { loop } = tools;
  const change = (changed: Partial<typeof loop>) => tools.change('loop', changed);
  const kind = (bit: number) => ({
    on: (loop.kinds & bit) !== 0,
    onChange: (on: boolean) => change({ kinds: on ? loop.kinds | bit : loop.kinds & ~bit || allKinds }),
  });
  return (
    <Unfolded title="Select" testId="loop-settings" hint="Draw round things, or press on one to add it or take it out.">
      <Segments
        label="How"
        value={loop.box ? 'box' : 'loop'}
        onValue={(way) => change({ box: way === 'box' })}
        options={[
          { value: 'loop', words: 'Loop', testId: 'select-loop' },
          { value: 'box', words: 'Box', testId: 'select-box' },
        ]}
      />
      <Slider
        label="Takes what is inside"
        value={Math.round(loop.share * 100)}
        min={5}
        max={100}
        step={5}
        testId="select-share"
        words={(share) => `${share} %`}
        onValue={(share) => change({ share: share / 100 })}
      />
      <Switch label="Ink" testId="take-ink" {...kind(itemKinds.ink)} />
      <Switch label="Highlighter" testId="take-highlighter" {...kind(itemKinds.highlighter)} />
      <Switch label="Shapes" testId="take-shapes" {...kind(itemKinds.shape)} />
      <Switch label="Fills" testId="take-fills" {...kind(itemKinds.area)} />
      <Switch
        label="Only the layer I write on"
        on={loop.onlyLayer}
        testId="take-layer"
        onChange={(onlyLayer) => change({ onlyLayer })}
      />
      <div className="mt-2 grid grid-cols-2 gap-1.5">
        <button
          type="button"
          className="h-10 rounded-md border border-base-300 text-[13px] hover:border-primary"
          data-testid="select-all"
          onClick={onAll}
        >
          Select all
        </button>
        <button
          type="button"
          className="h-10 rounded-md border border-base-300 text-[13px] hover:border-primary"
          title="Lays down what was copied or cut"
          data-testid="paste"
          onClick={onPaste}
        >
          Lay down
        </button>
      </div>
    </Unfolded>
  );
}

export const shapeNames: Record<ShapeChoice, string> = {
  free: 'As I draw it',
  line: 'Line',
  arrow: 'Arrow',
  doubleArrow: 'Arrow both ways',
  circle: 'Circle',
  ellipse: 'Ellipse',
  triangle: 'Triangle',
  square: 'Square',
  rectangle: 'Rectangle',
  rhombus: 'Rhombus',
  parallelogram: 'Parallelogram',
  trapezoid: 'Trapezoid',
  polygon: 'Hexagon',
  star: 'Star',
  arc: 'Arc',
  wave: 'Wave',
};

export function ShapeSettings({ tools }: { tools: Tools }) {
  const { shape, settings } = tools;
  const change = (changed: Partial<typeof shape>) => tools.change('shape', changed);
  return (
    <Unfolded
      title="Shape"
      aside={shapeNames[shape.kind]}
      testId="shape-settings"
      hint="Drawn with the pen chosen last. Shift keeps lines at 15° and sides even."
    >
      <div role="group" aria-label="Kind of shape" className="mt-2 grid grid-cols-4 gap-1">
        {(Object.keys(shapeKinds) as ShapeChoice[]).map((kind) => (
          <button
            key={kind}
            type="button"
            aria-pressed={shape.kind === kind}
            aria-label={shapeNames[kind]}
            title={shapeNames[kind]}
            data-testid={`shape-${kind}`}
            onClick={() => change({ kind })}
            className={`grid h-11 place-items-center rounded-md border ${shape.kind === kind ? 'border-primary bg-base-200' : 'border-transparent hover:border-base-300'}`}
          >
            <ShapeFace kind={kind} />
          </button>
        ))}
      </div>
      <Switch
        label="Filled"
        on={shape.fill !== ''}
        testId="shape-filled"
        onChange={(on) => change({ fill: on ? '#e3b23c' : '' })}
      />
      {shape.fill && (
        <>
          <ColourWells colour={shape.fill} onColour={(fill) => change({ fill })} />
          <Slider
            label="Opacity of the fill"
            value={Math.round(shape.fillOpacity * 100)}
            min={5}
            max={100}
            step={5}
            testId="shape-fill-opacity"
            words={(share) => `${share} %`}
            onValue={(share) => change({ fillOpacity: share / 100 })}
          />
        </>
      )}
      <Slider
        label="Join ends within"
        value={settings.join}
        min={0}
        max={800}
        step={50}
        testId="join"
        words={(join) => (join === 0 ? 'never' : `${(join / 100).toFixed(1)} mm`)}
        onValue={(join) => tools.changeSettings({ join })}
      />
      <p className="mt-3 text-[13px]">The paper’s own lines are met by</p>
      <Segments
        label="The paper’s own lines are met by"
        value={settings.joinPrinted}
        options={[
          { value: 'never', words: 'Nothing', testId: 'join-printed-never' },
          { value: 'straight', words: 'Level ends', testId: 'join-printed-straight' },
          { value: 'all', words: 'All ends', testId: 'join-printed-all' },
        ]}
        onValue={(joinPrinted) => tools.changeSettings({ joinPrinted })}
      />
      <Slider
        label="Tidy when the pen rests"
        value={settings.tidyAfter}
        min={0}
        max={1500}
        step={50}
        testId="tidy-after"
        words={(after) => (after === 0 ? 'never' : `${(after / 1000).toFixed(2)} s`)}
        onValue={(after) => tools.changeSettings({ tidyAfter: after > 0 && after < 300 ? 300 : after })}
      />
      <Slider
        label="Then only what is larger than"
        value={settings.tidyLeast}
        min={500}
        max={4000}
        step={100}
        testId="tidy-least"
        words={(least) => `${least / 100} mm`}
        onValue={(tidyLeast) => tools.changeSettings({ tidyLeast })}
      />
    </Unfolded>
  );
}

export function FillSettings({ tools }: { tools: Tools }) {
  const { fill } = tools;
  const change = (changed: Partial<typeof fill>) => tools.change('fill', changed);
  return (
    <Unfolded title="Fill" testId="fill-settings" hint="Press inside what strokes and shapes close in.">
      <ColourWells colour={fill.colour} onColour={(colour) => change({ colour })} />
      <Slider
        label="Opacity"
        value={Math.round(fill.opacity * 100)}
        min={5}
        max={100}
        step={5}
        testId="fill-opacity"
        words={(share) => `${share} %`}
        onValue={(share) => change({ opacity: share / 100 })}
      />
      <Slider
        label="Closes gaps of"
        value={fill.gap}
        min={0}
        max={800}
        step={20}
        testId="fill-gap"
        words={(gap) => `${(gap / 100).toFixed(1)} mm`}
        onValue={(gap) => change({ gap })}
      />
    </Unfolded>
  );
}

export function RoomSettings({ tools }: { tools: Tools }) {
  const { room } = tools;
  return (
    <Unfolded
      title="Make room"
      testId="room-settings"
      hint={
        room.sideways
          ? 'Drag a line to the right: all right of it moves along.'
          : 'Drag a line down: all below it moves along. Back takes empty space away.'
      }
    >
      <Segments
        label="Which way"
        value={room.sideways ? 'right' : 'down'}
        onValue={(way) => tools.change('room', { sideways: way === 'right' })}
        options={[
          { value: 'down', words: 'Down', testId: 'room-down' },
          { value: 'right', words: 'Right', testId: 'room-right' },
        ]}
      />
      <Switch
        label="What leaves the sheet goes to the next page"
        on={room.toNext}
        testId="room-next"
        onChange={(toNext) => tools.change('room', { toNext })}
      />
    </Unfolded>
  );
}

/** What pen and fingers do. */
export function HandPanel({ tools }: { tools: Tools }) {
  const { settings } = tools;
  const change = tools.changeSettings;
  return (
    <Unfolded title="Pen and finger" testId="hand-settings">
      <p className="mt-2 text-[13px] text-quiet">Once a pen was seen, a finger</p>
      <Segments
        label="What a finger does"
        columns={2}
        value={settings.finger}
        onValue={(finger) => change({ finger })}
        options={[
          { value: 'scroll', words: 'scrolls', testId: 'finger-scroll' },
          { value: 'erase', words: 'erases', testId: 'finger-erase' },
          { value: 'select', words: 'selects', testId: 'finger-select' },
          { value: 'write', words: 'writes', testId: 'finger-write' },
          { value: 'nothing', words: 'does nothing', testId: 'finger-nothing' },
        ]}
      />
      <Switch
        label="Two fingers tap to undo, three to redo"
        on={settings.taps}
        testId="finger-taps"
        onChange={(taps) => change({ taps })}
      />
      <p className="mt-2 text-[13px] text-quiet">The pen’s side button takes up the</p>
      <Segments
        label="Side button"
        value={settings.button}
        onValue={(button) => change({ button })}
        options={[
          { value: 'eraser', words: 'eraser', testId: 'button-eraser' },
          { value: 'loop', words: 'loop', testId: 'button-loop' },
          { value: 'pen', words: 'last pen', testId: 'button-pen' },
        ]}
      />
      <Switch
        label="While it is held"
        on={settings.buttonHeld}
        testId="button-held"
        onChange={(buttonHeld) => change({ buttonHeld })}
      />
      <p className="mt-2 text-[13px] text-quiet">The pen’s tail is the</p>
      <Segments
        label="Tail"
        value={settings.tail}
        onValue={(tail) => change({ tail })}
        options={[
          { value: 'eraser', words: 'eraser', testId: 'tail-eraser' },
          { value: 'loop', words: 'loop', testId: 'tail-loop' },
        ]}
      />
      <Segments
        label="Writing hand"
        value={settings.leftHanded ? 'left' : 'right'}
        onValue={(hand) => change({ leftHanded: hand === 'left' })}
        options={[
          { value: 'left', words: 'Left hand', testId: 'hand-left' },
          { value: 'right', words: 'Right hand', testId: 'hand-right' },
        ]}
      />
      <Slider
        label="An arrow key nudges"
        value={settings.nudge}
        min={25}
        max={500}
        step={25}
        testId="nudge"
        words={(nudge) => `${(nudge / 100).toFixed(2)} mm`}
        onValue={(nudge) => change({ nudge })}
      />
      <Switch
        label="Dim paper at night"
        on={settings.dimPaper}
        testId="dim-paper"
        onChange={(dimPaper) => change({ dimPaper })}
      />
    </Unfolded>
  );
}
