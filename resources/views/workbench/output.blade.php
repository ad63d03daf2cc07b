@use ('App\View\Marks')
@use ('VineShelf\Output\Output')
@use ('VineShelf\Rungs\Rung')
@php
    $choices = [
        ['none', Marks::output(null, Rung::Full, false), 'Nothing set: as the view has it, else Full'],
        ...array_map(fn (Rung $rung) => [(string) $rung->value, Marks::rung($rung, $rung), $rung->label()], Rung::cases()),
        ['desk', Marks::output(Output::AsOnDesk, Rung::Full, false), 'As on the desk of whoever makes the picture'],
        ['never', Marks::output(Output::Never, Rung::Hidden, false), 'Never in pictures: helpers, clearances, measuring bodies'],
    ];
@endphp
<form class="ask" data-submit="post" data-address="{{ route('output.set', $bench->project) }}">
    <h2 id="dialog-title">In pictures: {{ $of->what }}</h2>
    <p>Set for everybody in the project. Desks stay as they are.</p>
    <input type="hidden" name="keys" value="{{ $keys }}" />
    <div class="choices output-choices" role="radiogroup" aria-label="What pictures show">
        @foreach ($choices as [$word, $mark, $label])
            <label
                ><input
                    type="radio"
                    name="output"
                    value="{{ $word }}"
                    @checked ($of->now === $word)
                    @if ($of->now === $word || ($of->now === '' && $loop->first)) autofocus @endif
                />
                {!! $mark !!} <span class="label">{{ $label }}</span></label
            >
        @endforeach
    </div>
    <label for="output-note">Note, why it is never in pictures</label>
    <input id="output-note" name="note" value="{{ $of->note }}" maxlength="300" autocomplete="off" />
    <p class="error" role="alert" hidden></p>
    <p class="acts"><button class="button primary">Set</button> <button type="button" class="button" data-close>Leave it</button></p>
</form>
