@php
    $picked = $bench->pick()->count();
    $first = match (true) {
        in_array($from, ['pick', 'hits', 'rule', 'nothing'], true) => $from,
        $picked > 0 => 'pick',
        default => $rule !== '' ? 'rule' : 'nothing',
    };
@endphp
<form class="ask" data-submit="post" data-address="{{ route('sets.store', $bench->project) }}">
    <h2 id="dialog-title">Keep a set</h2>
    <label for="set-name">Name</label>
    <input id="set-name" name="name" maxlength="200" autofocus />
    <fieldset>
        <legend>It holds</legend>
        @if ($picked > 0)
            <label class="tick"
                ><input type="radio" name="of" value="pick" @checked ($first === 'pick') /> what is picked now: {{ number_format($picked) }}
                {{ $picked === 1 ? 'object' : 'objects' }}</label
            >
        @endif
        @if ($rule !== '')
            <label class="tick"
                ><input type="radio" name="of" value="rule" @checked ($first === 'rule') /> whatever the rule finds, always current:
                <code class="rule-shown">{{ $rule }}</code></label
            >
            <label class="tick"
                ><input type="radio" name="of" value="hits" @checked ($first === 'hits') /> what the rule finds now:
                {{ number_format($hits) }} {{ $hits === 1 ? 'object' : 'objects' }}</label
            >
        @endif
        <label class="tick"><input type="radio" name="of" value="nothing" @checked ($first === 'nothing') /> nothing yet</label>
    </fieldset>
    @if ($folder > 0 && $bench->sets()->hasFolder($folder))
        <label class="tick"
            ><input type="checkbox" name="folder" value="{{ $folder }}" checked /> inside {{ $bench->sets()->folder($folder)->name }}</label
        >
    @endif
    <p class="error" role="alert" hidden></p>
    <p class="acts"><button class="button primary">Keep</button> <button type="button" class="button" data-close>Cancel</button></p>
</form>
