<form class="ask file-under" data-submit="post" data-address="{{ route('tags.merge', $bench->project) }}">
    <h2 id="dialog-title">Make one of {{ count($tags) }} tags</h2>
    <input type="hidden" name="keys" value="{{ implode(',', array_map(fn ($tag) => "T$tag->number", $tags)) }}" />
    <div class="choices" role="radiogroup" aria-label="The tag that stays">
        @foreach ($tags as $tag)
            <label style="--level: 0"
                ><input
                    type="radio"
                    name="into"
                    value="{{ $tag->number }}"
                    @checked ($loop->first)
                    @if ($loop->first) autofocus @endif
                /><span class="swatch kind-tag" style="--swatch: {{ $tag->colour }}"></span>
                <span class="label">{{ $bench->tags()->tree->path($tag) }}</span>
                <small>{{ number_format($bench->scene()->tagged($tag->number)->count()) }}</small>
                @if ($differences[$tag->number] !== [])
                    <span class="what-differs">
                        @foreach ($differences[$tag->number] as $sentence)
                            <span>{{ $sentence }}</span>
                        @endforeach
                    </span>
                @endif
            </label>
        @endforeach
    </div>
    <p>The one that stays keeps its colour, rungs, lock and note; the objects of the others get it, and rules that name them name it.</p>
    <p class="error" role="alert" hidden></p>
    <p class="acts"><button class="button primary">Make one</button> <button type="button" class="button" data-close>Cancel</button></p>
</form>
