@php ($many = count($list->lines))
<form class="ask" data-submit="post" data-address="{{ route('sorting-rules.read', $bench->project) }}">
    <h2 id="dialog-title">Open {{ number_format($many) }} sorting {{ $many === 1 ? 'rule' : 'rules' }}</h2>
    <textarea name="list" hidden aria-hidden="true">{{ $list->write() }}</textarea>
    @if ($has > 0)
        <fieldset>
            <legend>They come</legend>
            <label class="tick">
                <input type="radio" name="way" value="add" checked /> below the {{ number_format($has) }} that there are
            </label>
            <label class="tick"><input type="radio" name="way" value="replace" /> in their place</label>
        </fieldset>
    @endif
    @if ($layers !== [] || $tags !== [])
        <p>
            These are not here. They are made under the name beside them; write another layer or tag to use that instead, or nothing to
            leave it out.
        </p>
        <div class="choices sorting-names">
            @foreach (['layer' => $layers, 'tag' => $tags] as $what => $paths)
                @foreach ($paths as $at => $path)
                    <label
                        ><span title="{{ $path }}">{{ ucfirst($what) }} {{ $path }}</span
                        ><input name="{{ $what }}-{{ $at }}" value="{{ $path }}" maxlength="4000" autocomplete="off"
                    /></label>
                @endforeach
            @endforeach
        </div>
    @else
        <p>All layers and tags that they name are here.</p>
    @endif
    <p class="hint">Nothing is sorted yet.</p>
    <p class="error" role="alert" hidden></p>
    <p class="acts">
        <button class="button primary" autofocus>Open</button> <button type="button" class="button" data-close>Cancel</button>
    </p>
</form>
