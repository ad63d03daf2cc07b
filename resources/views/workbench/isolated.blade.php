@php
    $isolation = $bench->isolation();
    $rest = $isolation->rest();
    // Hidden, ghost, box, and round again.
    $next = ['hidden' => 'ghost', 'ghost' => 'box', 'box' => 'hidden'][lcfirst($rest->label())] ?? 'hidden';
    $alone = $bench->desk->alone_layer;
    $view = $bench->desk->shows_output ? $bench->outputs()->view() : null;
    $ceiling = VineShelf\Rungs\Rung::from($bench->settings()->ceiling);
@endphp
@if ($bench->desk->shows_output)
    <p class="isolated showing-output" role="status">
        <strong>Output</strong> <span class="label">{{ $view === null ? 'of no view' : 'of view ' . $view->name }}</span>
        <button class="button small" data-command="turn-sides" title="Show the desk again (Shift+O)">Back to the desk</button>
    </p>
@elseif ($isolation->isOn())
    <p class="isolated" role="status">
        @if ($alone > 0 && $bench->layers()->has($alone))
            <strong class="label" title="{{ $bench->layers()->path($alone) }}">{{ $bench->layers()->get($alone)->name }} alone</strong>
            <x-tool command="alone-back" icon="chevron-left" title="The layer before (Shift+K)" />
            <x-tool command="alone-next" icon="chevron-right" title="The next layer (Shift+L)" />
        @else
            <strong>{{ number_format($isolation->objects()->count()) }} isolated</strong>
        @endif
        @if ($isolation->depth() > 1)
            <span>step {{ $isolation->depth() }}</span>
        @endif
        <button class="button small" data-command="isolate-rest" data-rest="{{ $next }}" title="Show the rest otherwise: {{ $next }}">
            Rest: {{ lcfirst($rest->label()) }}
        </button>
        <button class="button small" data-command="isolate-back" title="One step back out (Backspace)">Back</button>
    </p>
@endif
@if ($ceiling !== VineShelf\Rungs\Rung::Full && ! $bench->desk->shows_output)
    <p class="isolated ceiling" role="status">
        <strong>Ceiling: {{ $ceiling->label() }}</strong>
        <button class="button small" data-command="ceiling-5" title="Lift the ceiling; what was set stays set">Lift</button>
    </p>
@endif
