@php ($isolation = $bench->isolation())
@if ($bench->desk->shows_output)
    @php ($view = $bench->outputs()->view())
    <p class="isolated showing-output" role="status">
        <strong>Output</strong> <span class="label">{{ $view === null ? 'of no view' : 'of view ' . $view->name }}</span>
        <button class="button small" data-command="show-desk" title="Show the desk again (Shift+O)">Back to the desk</button>
    </p>
@elseif ($isolation->isOn())
    <p class="isolated" role="status">
        <strong>{{ number_format($isolation->objects()->count()) }} isolated</strong>
        @if ($isolation->depth() > 1)
            <span>step {{ $isolation->depth() }}</span>
        @endif
        <button
            class="button small"
            data-command="isolate-rest"
            data-rest="{{ $isolation->rest() === VineShelf\Rungs\Rung::Ghost ? 'hidden' : 'ghost' }}"
            title="Show the rest {{ $isolation->rest() === VineShelf\Rungs\Rung::Ghost ? 'not at all' : 'as ghosts' }}"
        >
            Rest: {{ $isolation->rest() === VineShelf\Rungs\Rung::Ghost ? 'ghost' : 'hidden' }}
        </button>
        <button class="button small" data-command="isolate-back" title="One step back out (Backspace)">Back</button>
    </p>
@endif
