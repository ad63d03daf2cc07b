<form class="ask" data-submit="{{ $method }}" data-address="{{ $address }}">
    <h2 id="dialog-title">Not for export: {{ $what }}</h2>
    @foreach ($with ?? [] as $name => $value)
        <input type="hidden" name="{{ $name }}" value="{{ $value }}" />
    @endforeach
    <label for="hold-back">Why exports leave it out</label>
    <input
        id="hold-back"
        name="{{ $field }}"
        value="{{ $reason }}"
        maxlength="400"
        autocomplete="off"
        placeholder="empty lets exports have it"
        autofocus
    />
    <p class="error" role="alert" hidden></p>
    <p class="acts"><button class="button primary">Keep</button> <button type="button" class="button" data-close>Cancel</button></p>
</form>
