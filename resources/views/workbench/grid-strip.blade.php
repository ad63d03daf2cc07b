@use ('VineShelf\Folders\Folder')
@php ($filter = $bench->arrangement()->views)
@php ($over = count((new App\Ledger\Memberships($bench))->columns()))
@if ($over > 0)
    <span class="hint">{{ $over === 1 ? 'One tag or set as a column' : "$over tags and sets as columns" }}</span>
    @if ($filter === null) <span class="gap"></span> @endif
    <x-tool command="widen-end" icon="x" title="Tags and sets are columns no longer" />
@endif
@if ($filter !== null)
    <label class="unseen" for="grid-folder">Folder of views</label>
    <select id="grid-folder" name="grid_folder">
        <option value="0">All views</option>
        @foreach ($bench->shelf()->walk() as [$row])
            @if ($row instanceof Folder)
                <option value="{{ $row->number }}" @selected ($filter->folder === $row->number)>{{ $bench->shelf()->path($row) }}</option>
            @endif
        @endforeach
    </select>
    <label class="unseen" for="grid-named">Part of a view's name</label>
    <input id="grid-named" name="grid_named" type="search" placeholder="Views named" value="{{ $filter->named }}" maxlength="120" />
    <label class="unseen" for="grid-only">Rows</label>
    <select id="grid-only" name="grid_only">
        @foreach (['' => 'All rows', 'set' => 'Rows that are set', 'differ' => 'Rows that differ'] as $value => $label)
            <option value="{{ $value }}" @selected ($filter->only === $value)>{{ $label }}</option>
        @endforeach
    </select>
    <span class="gap"></span>
    <button class="button small" data-command="grid-file" title="As a file of comma-separated values">CSV out</button>
    @if ($bench->mayChange())
        <button class="button small" data-command="grid-read" title="From a file of comma-separated values, shown before it is done">
            CSV in
        </button>
    @endif
    <x-tool command="grid" icon="x" title="Views are columns no longer (Alt+V)" />
@endif
