<div class="ask comments">
    <h2 id="dialog-title">What guests said of {{ $view->name }}</h2>
    @if ($comments->isEmpty())
        <p>Nobody has said anything yet.</p>
    @endif
    <ol class="scrolled">
        @foreach ($comments as $comment)
            <li @class (['done' => $comment->done])>
                <p>
                    <strong>{{ $comment->by }}</strong>
                    <time datetime="{{ $comment->made_at->toIso8601String() }}">{{ $comment->made_at->diffForHumans() }}</time>
                </p>
                <p class="words">{{ $comment->words }}</p>
                @if ($comment->place !== null)
                    <button
                        type="button"
                        class="link"
                        data-said-at="{{ json_encode($comment->place) }}"
                        data-by="{{ $comment->by }}"
                        data-words="{{ $comment->words }}"
                        >Show where</button
                    >
                @endif
                @if ($bench->mayChange())
                    <button type="button" class="link" data-settle="{{ $comment->id }}" data-done="{{ $comment->done ? 0 : 1 }}">
                        {{ $comment->done ? 'Open again' : 'Dealt with' }}
                    </button>
                @endif
            </li>
        @endforeach
    </ol>
    <p class="acts"><button type="button" class="button" data-close>Close</button></p>
</div>
