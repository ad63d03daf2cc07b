@php
    $isExport = $property === VineShelf\Own\OwnValue::EXPORT;
    $names = $bench->organizers()->own->names();
    $values = $property === '' || $isNote ? [] : array_map(fn ($value) => $value->value, $bench->organizers()->own->values($property));
@endphp
<form class="ask" data-submit="post" data-address="{{ route('own.set', $bench->project) }}">
    <h2 id="dialog-title">
        {{ $isNote ? 'Note on' : ($property === '' ? 'New property on' : ($isExport ? 'Not for export:' : "$property on")) }}
        {{ number_format($count) }} picked
    </h2>
    @if ($property === '')
        <label for="own-name">Property</label>
        <input id="own-name" name="property" maxlength="60" list="own-names" autocomplete="off" autofocus />
        <datalist id="own-names">
            @foreach ($names as $name)
                <option value="{{ $name }}"></option>
            @endforeach
        </datalist>
    @else
        <input type="hidden" name="property" value="{{ $property }}" />
    @endif
    @if ($isNote)
        <textarea name="value" rows="5" maxlength="2000" aria-label="Note" autofocus>{{ $value }}</textarea>
    @else
        <label for="own-value">{{ $isExport ? 'Why exports leave it out' : 'Value' }}</label>
        <input
            id="own-value"
            name="value"
            value="{{ $value }}"
            maxlength="400"
            list="own-values"
            autocomplete="off"
            placeholder="{{ $isExport ? 'empty lets exports have it' : 'empty takes it off' }}"
            @if ($property !== '') autofocus @endif
        />
        <datalist id="own-values">
            @foreach ($values as $known)
                <option value="{{ $known }}"></option>
            @endforeach
        </datalist>
    @endif
    <p class="error" role="alert" hidden></p>
    <p class="acts"><button class="button primary">Keep</button> <button type="button" class="button" data-close>Cancel</button></p>
</form>
