<div class="ask pins">
    <h2 id="dialog-title">What guests said of {{ $view->name }}</h2>
    @if ($pins->isEmpty())
        <p>Nobody has said anything yet.</p>
    @endif
    <ol class="scrolled">
        @foreach ($pins as $pin)
            <li @class (['done' => $pin->done])>
                <p>
                    <strong>{{ $pin->by }}</strong>
                    <time datetime="{{ $pin->made_at->toIso8601String() }}">{{ $pin->made_at->diffForHumans() }}</time>
                </p>
                <p class="words">{{ $pin->words }}</p>
                @if ($bench->mayChange())
                    <button type="button" class="link" data-settle="{{ $pin->id }}" data-done="{{ $pin->done ? 0 : 1 }}">
                        {{ $pin->done ? 'Open again' : 'Dealt with' }}
                    </button>
                @endif
            </li>
        @endforeach
    </ol>
    <p class="acts"><button type="button" class="button" data-close>Close</button></p>
</div>
