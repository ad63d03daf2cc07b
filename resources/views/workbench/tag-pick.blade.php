<form class="ask file-under" data-submit="post" data-address="{{ route('tag', $bench->project) }}" data-or-new="/tags">
    <h2 id="dialog-title">Tag {{ number_format($count) }} {{ $keys === '' ? 'picked' : ($count === 1 ? 'object' : 'objects') }}</h2>
    <input
        type="search"
        name="name"
        data-narrow
        placeholder="Part of a tag's name, or a new one: Phases / First"
        aria-label="Find a tag, or name a new one"
        autofocus
    />
    <div class="choices" role="radiogroup" aria-label="Tag">
        @foreach ($bench->tags()->all() as $tag)
            <label data-text="{{ mb_strtolower(App\SortingRules\Paths::tag($bench, $tag->number)) }}"
                ><input type="radio" name="tag" value="{{ $tag->number }}" @checked ($loop->first) /><span
                    class="swatch"
                    style="--swatch: {{ $tag->colour }}"
                ></span>
                <span class="label" title="{{ $tag->note }}">{{ $bench->tags()->tree->path($tag) }}</span>
                <small>{{ $counts[$tag->number] === $all ? 'all' : ($counts[$tag->number] ?: '') }}</small></label
            >
        @endforeach
    </div>
    <p class="or-new" data-new hidden>There is no such tag: it will be made.</p>
    <input type="hidden" name="mode" value="toggle" />
    <input type="hidden" name="keys" value="{{ $keys }}" />
    <input type="hidden" name="from_pick" value="1" />
    <label class="tick"><input type="checkbox" name="with_held" value="1" checked /> What the picked groups hold gets it too</label>
    <p class="error" role="alert" hidden></p>
    <p class="acts"><button class="button pick">Tag</button> <button type="button" class="button" data-close>Leave it</button></p>
</form>
