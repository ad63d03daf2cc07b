<form class="ask grid-sheet" data-submit="post" data-address="{{ route('grid.read', $bench->project) }}">
    <h2 id="dialog-title">Read a grid</h2>
    @if ($read === null)
        <p>
            A file of comma-separated values as the grid writes it: a line a row, a column a view. What it says is shown before it is done.
        </p>
        <label for="sheet-file">File</label>
        <input id="sheet-file" type="file" accept=".csv,text/csv" data-sheet autofocus />
    @else
        <p>
            <strong>{{ number_format($read->changing) }}</strong> {{ $read->changing === 1 ? 'cell changes' : 'cells change' }} in
            {{ count($read->cells) }} {{ count($read->cells) === 1 ? 'view' : 'views' }}.
        </p>
        <ul class="differences">
            @foreach (array_slice($read->byView(), 0, 40, true) as $name => $count)
                <li><span class="label" title="{{ $name }}">{{ $name }}</span> <em>{{ number_format($count) }}</em></li>
            @endforeach
        </ul>
        @if ($read->missing > 0)
            <p class="remark">{{ number_format($read->missing) }} of its rows are not in this project and are passed over.</p>
        @endif
        @if ($read->unknown !== [])
            <p class="remark">
                No view here: {{ implode(', ', array_slice($read->unknown, 0, 8)) }}{{ count($read->unknown) > 8 ? ' and more' : '' }}.
            </p>
        @endif
        <textarea name="sheet" hidden>{{ $text }}</textarea>
    @endif
    <p class="error" role="alert" hidden></p>
    <p class="acts">
        @if ($read !== null && $read->cells !== []) <button class="button primary">Change them</button> @endif
        <button type="button" class="button" data-close>{{ $read === null ? 'Cancel' : 'Leave it' }}</button>
    </p>
</form>
