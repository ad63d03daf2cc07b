@php ($keys = implode(',', array_map(fn ($row) => $row->key(), $rows)))
<form class="ask file-under" data-submit="post" data-address="{{ route('rows.move', $bench->project) }}">
    <h2 id="dialog-title">Move {{ count($rows) === 1 ? $rows[0]->name : count($rows) . ' rows' }} into</h2>
    <input type="search" data-narrow placeholder="Part of a name" aria-label="Find where to" autofocus />
    <input type="hidden" name="keys" value="{{ $keys }}" /> <input type="hidden" name="where" value="into" />
    <div class="choices" role="radiogroup" aria-label="Where to">
        <label data-text="the top level" style="--level: 0"
            ><input type="radio" name="mark" value="" checked /> <em>The top level</em></label
        >
        @foreach ($places as [$row, $depth])
            <label data-text="{{ mb_strtolower($row->name) }}" style="--level: {{ $depth }}"
                ><input type="radio" name="mark" value="{{ $row->key() }}" /> <span class="label">{{ $row->name }}</span></label
            >
        @endforeach
    </div>
    <p class="error" role="alert" hidden></p>
    <p class="acts"><button class="button primary">Move</button> <button type="button" class="button" data-close>Leave it</button></p>
</form>
