@use ('App\Http\Controllers\WeightController')
@use ('App\View\Icon')
@use ('App\View\Marks')
@use ('App\Weighing\Map')
@use ('App\Weighing\Parts')
@use ('VineShelf\Weights\Weight')
@php
    $says = static fn (Weight $weight): string => number_format($weight->triangles).' triangles, '.number_format($weight->calls).' calls, '
        .Marks::bytes($weight->bytes());
    $unit = static fn (int $value): string => $size === 'bytes' ? Marks::bytes($value) : Marks::short($value);
@endphp
<div class="weight-head">
    <h2>Weight</h2>
    <span class="switch" role="tablist" aria-label="What is shown">
        @foreach (WeightController::SHOWS as $id => $label)
            <button
                role="tab"
                data-weight="show"
                data-value="{{ $id }}"
                aria-selected="{{ $show === $id ? 'true' : 'false' }}"
                tabindex="{{ $show === $id ? 0 : -1 }}"
            >
                {{ $label }}
            </button>
        @endforeach
    </span>
    <span class="gap"></span>
    @if ($show !== 'map')
        <span class="weight-sum" title="{{ $says($all) }} at Full">{{ Marks::short($all->triangles) }}</span>
    @endif
    <button class="icon-button" data-weight="close" title="Close (Esc)" aria-label="Close">{!! Icon::svg('x') !!}</button>
</div>
@if ($show === 'map')
    <nav class="weight-trail" aria-label="Inside">
        <button class="link" data-weight="inside" data-value="">All of it</button>
        @foreach ($trail as [$key, $name])
            <span aria-hidden="true">›</span>
            <button
                class="link"
                data-weight="inside"
                data-value="{{ $key }}"
                title="{{ $name }}"
                @if ($loop->last) aria-current="true" @endif
            >
                {{ $name }}
            </button>
        @endforeach
        <span class="gap"></span>
        <select data-weight="by" aria-label="Divided by" title="Divided by">
            @foreach (Parts::BY as $id => $label)
                <option value="{{ $id }}" @selected ($by === $id)>{{ $label }}</option>
            @endforeach
        </select>
        <select data-weight="size" aria-label="As large as" title="As large as">
            @foreach (Map::SIZES as $id => $label)
                <option value="{{ $id }}" @selected ($size === $id)>{{ $label }}</option>
            @endforeach
        </select>
        <select data-weight="colour" aria-label="Coloured by" title="Coloured by">
            @foreach (Map::COLOURS as $id => $label)
                <option value="{{ $id }}" @selected ($colour === $id)>{{ $label }}</option>
            @endforeach
        </select>
    </nav>
    @if ($laid === [])
        <p class="weight-none">Nothing here draws anything.</p>
    @else
        <svg
            class="weight-map"
            viewBox="0 0 {{ $width }} {{ $height }}"
            width="{{ $width }}"
            height="{{ $height }}"
            role="group"
            aria-label="Map of weights: {{ Parts::BY[$by] }}, {{ Map::SIZES[$size] }}"
        >
            @foreach ($laid as $at => $one)
                @php
                    $cell = $one['cell'];
                    $words = "$cell->name {$unit($one['value'])}: ".$says($cell->weight).', '.number_format($cell->objects)
                        .($cell->objects === 1 ? ' object' : ' objects');
                @endphp
                <g
                    class="weight-part"
                    role="button"
                    tabindex="{{ $at === 0 ? 0 : -1 }}"
                    data-key="{{ $cell->key }}"
                    data-deep="{{ $cell->isDeep ? 1 : 0 }}"
                    aria-label="{{ $words }}"
                >
                    <title>{{ $words }}</title>
                    <rect
                        x="{{ $one['left'] }}"
                        y="{{ $one['top'] }}"
                        width="{{ $one['width'] }}"
                        height="{{ $one['height'] }}"
                        fill="{{ $one['fill'] }}"
                    />
                    @if ($one['width'] > 44 && $one['height'] > 20)
                        <svg x="{{ $one['left'] }}" y="{{ $one['top'] }}" width="{{ $one['width'] - 6 }}" height="{{ $one['height'] }}">
                            <text x="7" y="15" fill="{{ $one['ink'] }}">{{ $cell->name }}</text>
                            @if ($one['height'] > 36)
                                <text class="value" x="7" y="30" fill="{{ $one['ink'] }}">{{ $unit($one['value']) }}</text>
                            @endif
                        </svg>
                    @endif
                </g>
            @endforeach
        </svg>
    @endif
@else
    @include ('workbench.weight-'.$show)
@endif
