@use ('App\View\Marks')
@php ($state = $import->state->value)
<div
    class="import"
    id="import-{{ $import->key }}"
    data-state="{{ $state }}"
    @unless ($import->isOver()) hx-get="{{ route('imports.show', $import) }}" hx-trigger="every 700ms" hx-swap="outerHTML" @endunless
>
    <p class="import-name">
        <strong title="{{ $import->file_name }}">{{ $import->file_name }}</strong>
        <small>{{ Marks::bytes($import->bytes) }}</small>
    </p>
    @if ($state === 'failed')
        <p class="error" role="alert">{{ $import->error }}</p>
    @elseif ($state === 'stopped')
        <p>Stopped. Nothing of it was kept.</p>
    @elseif ($state === 'done')
        <p><a href="{{ route('imports.show', $import) }}">See what came</a></p>
    @else
        <div
            class="bar"
            role="progressbar"
            aria-label="Taking in {{ $import->file_name }}"
            aria-valuemin="0"
            aria-valuemax="100"
            aria-valuenow="{{ $import->percent() }}"
        >
            <i style="width: {{ $import->percent() }}%"></i>
        </div>
        <p role="status">{{ $import->says() }}</p>
    @endif
    @if ($import->isOver())
        <form method="post" action="{{ route('imports.destroy', $import) }}">
            @csrf
            @method ('delete')
            <button class="button">Dismiss</button>
        </form>
    @else
        <button
            class="button"
            hx-post="{{ route('imports.stop', $import) }}"
            hx-target="closest .import"
            hx-swap="outerHTML"
            @disabled ($import->stop)
        >
            {{ $import->stop ? 'Stopping' : 'Stop' }}
        </button>
    @endif
</div>
