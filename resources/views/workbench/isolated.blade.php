@php ($isolation = $bench->isolation())
@if ($isolation->isOn())
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
