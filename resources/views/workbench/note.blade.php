<form
    class="ask"
    data-submit="patch"
    data-address="{{ $keys === '' ? route('rows.update', [$bench->project, $row->key()]) : route('rows.updateSeveral', $bench->project) }}"
>
    <h2 id="dialog-title">Note on {{ $keys === '' ? $row->name : count(explode(',', $keys)) . ' rows' }}</h2>
    @if ($keys !== '')
        <input type="hidden" name="keys" value="{{ $keys }}" />
        <input type="hidden" name="nested" value="{{ $nested ? 1 : 0 }}" />
    @endif
    <textarea name="note" rows="5" maxlength="2000" aria-label="Note" autofocus>{{ $note }}</textarea>
    <p class="error" role="alert" hidden></p>
    <p class="acts"><button class="button primary">Keep</button> <button type="button" class="button" data-close>Cancel</button></p>
</form>
