@php ($hints = $bench->person->hintsLeft())
@if ($hints !== [])
    <div id="hints" data-address="{{ route('hints') }}">
        @foreach ($hints as $hint)
            <p class="hint-bubble" data-hint="{{ $hint }}" role="note" hidden>
                <span>{{
                    [
                        'hide' => 'A click on these bars hides the row, one more gives it back.',
                        'pick' => 'A click on a number picks what the row holds; in the model, what you point at.',
                        'keep' => 'Once it looks right, keep it as a view: one click brings it back.',
                    ][$hint]
                }}</span>
                <button class="icon-button" data-hint-close title="Do not show this again" aria-label="Do not show this hint again">
                    {!! App\View\Icon::svg('x') !!}
                </button>
            </p>
        @endforeach
    </div>
@endif
