@use ('VineShelf\Naming\Renaming')
<form
    class="ask rename-many"
    data-submit="post"
    data-address="{{ route('rename.store', $bench->project) }}"
    data-preview="{{ route('rename.preview', $bench->project) }}"
>
    <h2 id="dialog-title">Rename {{ number_format($count) }} {{ $keys === '' ? 'picked' : ($count === 1 ? 'row' : 'rows') }}</h2>
    <input type="hidden" name="keys" value="{{ $keys }}" />
    <div class="fields">
        <label for="rn-find">Find</label
        ><input id="rn-find" name="find" maxlength="200" placeholder="part of a name, * and ? stand for anything" autofocus />
        <label for="rn-replace">Replace with</label
        ><input id="rn-replace" name="replace" maxlength="200" placeholder="$1 is what the first * stood for" />
        <label for="rn-pattern">New name</label
        ><input id="rn-pattern" name="pattern" maxlength="200" placeholder="empty keeps it; {{ implode(' ', Renaming::PLACES) }}" />
        <label for="rn-prefix">Before it</label><input id="rn-prefix" name="prefix" maxlength="200" />
        <label for="rn-suffix">After it</label><input id="rn-suffix" name="suffix" maxlength="200" /> <span>Numbers</span
        ><span class="numbers"
            ><label>from <input name="start" value="1" inputmode="numeric" /></label>
            <label>by <input name="step" value="1" inputmode="numeric" /></label>
            <label>digits <input name="digits" value="1" inputmode="numeric" /></label
        ></span>
    </div>
    <div class="places" aria-label="Put into the new name">
        @foreach (Renaming::PLACES as $place)
            <button type="button" class="button small" data-place="{{ $place }}">{{ $place }}</button>
        @endforeach
    </div>
    <div id="rename-preview" aria-live="polite"></div>
    <p class="error" role="alert" hidden></p>
    <p class="acts"><button class="button primary">Rename</button> <button type="button" class="button" data-close>Leave it</button></p>
</form>
