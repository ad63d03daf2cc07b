@use ('App\View\Marks')
@use ('VineShelf\Output\Output')
@use ('VineShelf\Rungs\Rung')
<form class="ask" data-submit="post" data-address="{{ route('output.set', $bench->project) }}">
    <h2 id="dialog-title">In pictures: {{ $of->what }}</h2>
    <p>Set for everybody in the project. Desks stay as they are.</p>
    <input type="hidden" name="keys" value="{{ $keys }}" />
    <div class="choices output-choices" role="radiogroup" aria-label="What pictures show">
        <label
            ><input type="radio" name="output" value="none" @checked ($of->now === 'none') autofocus />
            {!! Marks::output(null, Rung::Full, false) !!} <span class="label">Nothing set: as the view has it, else Full</span></label
        >
        @foreach (array_reverse(Rung::cases()) as $rung)
            <label
                ><input type="radio" name="output" value="{{ $rung->value }}" @checked ($of->now === (string) $rung->value) />
                {!! Marks::rung($rung, $rung) !!} <span class="label">{{ $rung->label() }}</span></label
            >
        @endforeach
        <label
            ><input type="radio" name="output" value="desk" @checked ($of->now === 'desk') />
            {!! Marks::output(Output::AsOnDesk, Rung::Full, false) !!}
            <span class="label">As on the desk of whoever makes the picture</span></label
        >
        <label
            ><input type="radio" name="output" value="never" @checked ($of->now === 'never') />
            {!! Marks::output(Output::Never, Rung::Hidden, false) !!}
            <span class="label">Never in pictures, whatever a view says: helpers, clearances, measuring bodies</span></label
        >
    </div>
    <label for="output-note">Note, why it is never in pictures</label>
    <input id="output-note" name="note" value="{{ $of->note }}" maxlength="300" autocomplete="off" />
    <p class="error" role="alert" hidden></p>
    <p class="acts"><button class="button primary">Set</button> <button type="button" class="button" data-close>Leave it</button></p>
</form>
