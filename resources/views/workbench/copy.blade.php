@php
    $size = $box === null ? [0, 0, 0] : [$box[3] - $box[0], $box[4] - $box[1], $box[5] - $box[2]];
    $metres = static fn (float $value): string => rtrim(rtrim(number_format($value, 3, '.', ''), '0'), '.');
@endphp
<form class="ask copy" data-submit="post" data-address="{{ route('objects.copy', $bench->project) }}">
    <h2 id="dialog-title">Copy {{ number_format($count) }} {{ $count === 1 ? 'object' : 'objects' }}</h2>
    <input type="hidden" name="keys" value="{{ $keys }}" />
    <fieldset>
        <legend>Where the copies stand</legend>
        <label class="tick"><input type="radio" name="way" value="here" checked autofocus /> one in place</label>
        <label class="tick"><input type="radio" name="way" value="row" /> in a row, each a step from the one before</label>
        <label class="tick"><input type="radio" name="way" value="circle" /> in a circle</label>
    </fieldset>
    <div class="copy-fields" data-for="row circle">
        <label>Copies <input type="number" name="count" min="1" max="10000" step="1" value="1" /></label>
        <span></span><span></span>
        <label data-for="row">x, m <input type="number" name="x" step="any" value="{{ $metres($size[0]) }}" /></label>
        <label data-for="row">y, m <input type="number" name="y" step="any" value="0" /></label>
        <label data-for="row circle">z, m <input type="number" name="z" step="any" value="0" /></label>
        <label data-for="circle"
            >around x, m
            <input
                type="number"
                name="around_x"
                step="any"
                value="{{ $box === null ? 0 : $metres(($box[0] + $box[3]) / 2 + 2) }}"
        /></label>
        <label data-for="circle"
            >and y, m <input type="number" name="around_y" step="any" value="{{ $box === null ? 0 : $metres(($box[1] + $box[4]) / 2) }}"
        /></label>
        <label data-for="row circle">turn, ° <input type="number" name="turn" step="any" placeholder="0" data-circle="all round" /></label>
    </div>
    <p class="hint">
        They draw the same meshes, and have the same layer, tags, properties, locks and rungs.
        @if ($box !== null)
            What is copied is {{ $metres($size[0]) }} × {{ $metres($size[1]) }} × {{ $metres($size[2]) }} m, its middle at
            {{ $metres(($box[0] + $box[3]) / 2) }}, {{ $metres(($box[1] + $box[4]) / 2) }}.
        @endif
    </p>
    <p class="error" role="alert" hidden></p>
    <p class="acts"><button class="button primary">Copy</button> <button type="button" class="button" data-close>Cancel</button></p>
</form>
