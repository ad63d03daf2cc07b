@php
    $keys = implode(',', array_map(fn ($row) => $row->key(), $rows));
    $families = array_unique(array_map(fn ($row) => $row->family, $rows));
@endphp
<form class="ask" data-submit="delete" data-address="{{ route('rows.destroy', $bench->project) }}">
    <h2 id="dialog-title">Delete {{ count($rows) === 1 ? $rows[0]->inWords() : count($rows) . ' rows' }}</h2>
    <input type="hidden" name="keys" value="{{ $keys }}" />
    <p>
        {{ $families === ['views'] ? 'What the views show stays as it is.' : 'The objects stay; they only lose what sorts them.' }}
    </p>
    @if ($inside !== [])
        <label for="with-content">What is in it</label>
        <select name="with_content" id="with-content">
            <option value="0">moves to where it stood</option>
            <option value="1">goes with it: {{ count($inside) === 1 ? '1 row' : number_format(count($inside)) . ' rows' }}</option>
        </select>
    @endif
    <p class="error" role="alert" hidden></p>
    <p class="acts"><button class="button danger">Delete</button> <button type="button" class="button" data-close>Keep it</button></p>
</form>
