@use ('App\View\Marks')
<div class="ask export" data-exported="{{ $export->key }}" data-over="{{ $export->isOver() ? 1 : 0 }}">
    <h2 id="dialog-title">Export parts</h2>
    @if ($export->state === 'done')
        <p role="status">{{ $export->says }} The file can be fetched for a day.</p>
        <p class="acts"
            ><a
                class="button primary"
                href="{{ route('exports.file', [$bench->project, $export->key]) }}"
                download
                autofocus
                >Save {{ $export->file_name }}, {{ Marks::bytes($export->bytes) }}</a
            > <button type="button" class="button" data-close>Close</button></p
        >
    @elseif ($export->isOver())
        <p class="error" role="alert">{{ $export->says }}</p>
        <p class="acts"><button type="button" class="button" data-close autofocus>Close</button></p>
    @else
        <div
            class="bar"
            role="progressbar"
            aria-label="Exporting"
            aria-valuemin="0"
            aria-valuemax="100"
            aria-valuenow="{{ $export->percent() }}"
        >
            <i style="width: {{ $export->percent() }}%"></i>
        </div>
        <p role="status">
            @if ($export->total > 0)
                {{ number_format($export->done) }} of {{ number_format($export->total) }} objects
            @else
                Waiting for a free worker
            @endif
        </p>
        <p class="acts">
            <button type="button" class="button" data-export-stop @disabled ($export->stop)>
                {{ $export->stop ? 'Stopping' : 'Stop' }}
            </button>
        </p>
    @endif
</div>
