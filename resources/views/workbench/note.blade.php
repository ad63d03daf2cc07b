<form class="ask" data-submit="patch" data-address="{{ route('rows.update', [$bench->project, $row->key()]) }}">
    <h2 id="dialog-title">Note on {{ $row->name }}</h2>
    <textarea name="note" rows="5" maxlength="2000" aria-label="Note" autofocus>{{ $note }}</textarea>
    <p class="error" role="alert" hidden></p>
    <p class="acts"><button class="button primary">Keep</button> <button type="button" class="button" data-close>Cancel</button></p>
</form>
