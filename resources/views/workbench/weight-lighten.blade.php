@use ('App\Lighten\Asked')
@use ('App\Workbench\Budget')
@php
    $given = $lightening === null ? null : Asked::of($lightening);
    $triangles = $given?->triangles ?? Budget::most()['triangles'];
    $from = $given?->from ?? 'camera';
    $keeps = 'keep what is picked'.($picked > 0 ? ': '.number_format($picked) : '');
@endphp
<div class="lighten">
    <form class="lighten-ask" data-lighten-ask>
        <span class="lighten-field lighten-to">
            <label for="lighten-triangles">Down to, in triangles</label>
            <input
                id="lighten-triangles"
                name="triangles"
                type="number"
                min="0"
                max="2000000000"
                step="1"
                value="{{ $triangles }}"
                required
            />
            <input
                type="range"
                data-lighten-slide
                min="0"
                max="{{ max(1, $now) }}"
                step="{{ max(1, intdiv($now, 200)) }}"
                value="{{ min($triangles, $now) }}"
                aria-label="Triangles, of {{ number_format($now) }} now"
            />
        </span>
        <span class="lighten-field">
            <label for="lighten-from">Seen from</label>
            <select id="lighten-from" name="from">
                <option value="camera" @selected ($from === 'camera')>this camera</option>
                @if ($views !== [])
                    <option value="views" @selected ($from === 'views')>views</option>
                @endif
                <option value="everywhere" @selected ($from === 'everywhere')>everywhere</option>
            </select>
        </span>
        <span class="lighten-field">
            <label for="lighten-side">Lightens</label>
            <select id="lighten-side" name="side" title="The desk: what pictures show stays as it is">
                <option value="desk" @selected ($given?->side !== 'output')>the desk only</option>
                <option value="output" @selected ($given?->side === 'output')>the output</option>
            </select>
        </span>
        <span class="lighten-field">
            <label for="lighten-by">By rungs of</label>
            <select id="lighten-by" name="by">
                <option value="objects" @selected ($given?->by !== 'layers')>objects</option>
                <option value="layers" @selected ($given?->by === 'layers')>layers only</option>
            </select>
        </span>
        <span class="lighten-ticks">
            <label class="tick"
                ><input type="checkbox" name="hides" value="1" @checked ($given === null || $given->hides) />
                <span>may hide objects</span></label
            >
            <label class="tick"
                ><input type="checkbox" name="keep" value="1" @checked ($picked > 0) @disabled ($picked === 0) />
                <span data-lighten-keep>{{ $keeps }}</span></label
            >
        </span>
        <button class="button primary">Propose</button>
        @if ($views !== [])
            <span class="lighten-views" data-lighten-views role="group" aria-label="Views" @if ($from !== 'views') hidden @endif>
                @foreach ($views as $view)
                    <label class="tick" title="{{ $view->name }}"
                        ><input
                            type="checkbox"
                            value="{{ $view->no }}"
                            @checked ($given?->from === 'views' ? in_array($view->no, $given->views, true) : $loop->index < 12)
                        />
                        <span>{{ $view->name }}</span></label
                    >
                @endforeach
            </span>
        @endif
        <p class="error" role="alert" hidden></p>
    </form>
    <div class="lighten-result" data-lighten-result>
        @if ($lightening === null)
            <p class="lighten-none">
                Says which objects can be drawn as less, so that all fit and as little as possible of the picture is lost. What stands
                behind other things costs nothing to lose. Nothing changes until you lighten.
            </p>
        @else
            @include ('workbench.lightening', ['asked' => $given])
        @endif
    </div>
</div>
