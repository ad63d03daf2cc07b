@use ('App\View\Marks')
@if ($card !== null)
    <div class="card" role="region" aria-label="The pick">
        <h2 title="{{ $card->title }}">
            @if ($card->kind !== '') {!! App\View\KindIcon::of($card->kind) !!} @endif
            <span>{{ $card->title }}</span> <x-tool command="clear-pick" icon="x" title="Clear the pick (Esc)" />
            <button
                class="icon-button unfold-card"
                data-command="details"
                aria-expanded="false"
                title="What is known of it (J)"
                aria-label="Details of the pick"
            >
                {!! App\View\Icon::svg('chevron-down') !!}
            </button>
        </h2>
        <p>
            in {{ $card->where }}
            @if ($card->held > 0)
                · holding {{ number_format($card->held) }} more
            @endif
            · {{ Marks::short($card->triangles) }} triangles
            @if ($card->hidden > 0)
                ·
                <button class="link warns" data-command="why" title="Why (Y)">{{ number_format($card->hidden) }} hidden</button>
            @endif
        </p>
        @if ($card->tags !== [] || $bench->mayChange())
            <div class="card-tags" role="group" aria-label="Tags of the pick">
                @foreach ($card->tags as $pill)
                    @php ([$tag, $state, $some] = $pill)
                    <button
                        class="tag-pill is-{{ $state }}"
                        data-command="tag-toggle"
                        data-tag="{{ $tag->number }}"
                        style="--swatch: {{ $tag->colour }}"
                        @disabled (!$bench->mayChange())
                        aria-pressed="{{ ['all' => 'true', 'some' => 'mixed', 'none' => 'false'][$state] }}"
                        title="{{ $card->pillTitle($pill, $bench->tags()->tree->path($tag)) }}"
                    >
                        <i class="swatch"></i><span class="label">{{ $tag->name }}</span>
                        @if ($state === 'some')
                            <small>{{ App\View\Marks::short($some) }}</small>
                        @endif
                    </button>
                @endforeach
                @if ($card->moreTags > 0)
                    <button class="tag-pill" data-command="tag-pick">{{ $card->moreTags }} more</button>
                @endif
                @if ($bench->mayChange())
                    <button class="tag-pill add" data-command="tag-pick" title="Tag the pick (G)">+ tag</button>
                @endif
            </div>
        @endif
        <div class="details" id="details" hx-morph-skip hidden></div>
        <div class="card-acts">
            @if ($bench->mayChange())
                <button class="button pick" data-command="file-under" title="File the pick under a layer (U)">File under…</button>
                <button class="button" data-command="new-layer-from-pick" title="New layer from the pick (Shift+N)">New layer</button>
                <button class="button" data-command="keep-set" data-of="pick" title="Keep the pick as a set (S)">Keep as set</button>
            @endif
            <button class="button" data-command="reach" title="From the pick to its relatives (E)">Reach…</button>
            <button class="button" data-command="isolate" title="Look at the pick alone (I); Shift+I leaves the rest as ghosts">
                Isolate
            </button>
            <button
                class="button rung"
                data-column="P"
                data-own="{{ $card->own?->value ?? '' }}"
                data-effect="{{ $card->inEffect->value }}"
                @if ($card->mixed) data-mixed="1" @endif
                data-back="{{ $card->back }}"
                data-why="{{ $card->rungTitle() }}"
                aria-label="{{ $card->rungTitle() }}"
            >
                {!! Marks::rung($card->own ?? $card->inEffect, $card->inEffect, $card->mixed) !!}
            </button>
            @if ($bench->mayChange())
                <button class="button" data-command="lock-pick" data-lock="{{ $card->nextLock->value }}" title="{{ $card->lockTitle() }}">
                    {{ ['Open', 'Guard', 'Lock'][$card->nextLock->value] }}
                </button>
                <button class="button" data-command="output-pick" title="What pictures show of the pick (Alt+O)">Output</button>
                @if ($card->count > 1)
                    <button class="button" data-command="rename-pick" title="New names for the whole pick (Shift+R)">Rename…</button>
                @endif
            @endif
            <button
                class="button"
                data-command="why"
                @if ($card->count === 1) data-object="{{ $card->numbers[0] }}" @endif
                title="Why it shows as it does (Y)"
            >
                Why
            </button>
        </div>
    </div>
@endif
