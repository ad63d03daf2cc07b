@props (['address', 'title', 'stays', 'act', 'letter', 'rows'])
<form class="ask file-under" data-submit="post" data-address="{{ $address }}">
    <h2 id="dialog-title">{{ $title }}</h2>
    <input type="hidden" name="keys" value="{{ implode(',', array_map(fn ($row) => $letter . $row['number'], $rows)) }}" />
    <div class="choices" role="radiogroup" aria-label="{{ $stays }}">
        @foreach ($rows as $row)
            <label style="--level: 0"
                ><input
                    type="radio"
                    name="into"
                    value="{{ $row['number'] }}"
                    @checked ($loop->first)
                    @if ($loop->first) autofocus @endif
                /><span @class (['swatch', 'kind-tag' => $letter === 'T']) style="--swatch: {{ $row['colour'] }}"></span>
                <span class="label">{{ $row['path'] }}</span>
                <small>{{ number_format($row['objects']) }}</small>
                @if ($row['differs'] !== [])
                    <span class="what-differs">
                        @foreach ($row['differs'] as $sentence)
                            <span>{{ $sentence }}</span>
                        @endforeach
                    </span>
                @endif
            </label>
        @endforeach
    </div>
    <p>{{ $slot }}</p>
    <p class="error" role="alert" hidden></p>
    <p class="acts"><button class="button primary">{{ $act }}</button> <button type="button" class="button" data-close>Cancel</button></p>
</form>
