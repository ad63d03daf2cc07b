@php
    $names = implode(', ', $joining->names);
    $onto = $joining->onto->name;
    $it = count($joining->names) === 1 ? 'it' : 'them';
    $labels = [
        'listed' => "list what $names holds now in $onto",
        'or' => "widen $onto by $it",
        'and' => "narrow $onto to $it",
        'without' => "leave $it out of $onto",
        'new' => 'a new set of all of them, always current',
    ];
    $n = number_format(...);
    $many = $joining->rows()->count();
@endphp
<form class="ask wide join-sets" data-submit="post" data-address="{{ route('sets.join', [$bench->project, $joining->onto->number]) }}">
    <h2 id="dialog-title">{{ $names }} and {{ $onto }}</h2>
    <input type="hidden" name="keys" value="{{ $keys }}" />
    <fieldset>
        <legend>What becomes of them</legend>
        @foreach ($joining->ways() as $way)
            @php ($rule = $way === 'listed' ? '' : $joining->rule($way))
            <label class="tick"
                ><input type="radio" name="way" value="{{ $way }}" @checked ($loop->first) @if ($loop->first) autofocus @endif />
                {{ $labels[$way] }}:
                @if ($rule === '')
                    {{ $n($many) }} {{ $many === 1 ? 'object' : 'objects' }}
                @else
                    <code class="rule-shown">{{ $rule }}</code> {{ $n($bench->find($rule)->rows?->count() ?? 0) }}
                @endif
            </label>
        @endforeach
    </fieldset>
    <div class="join-name">
        <label for="join-name">Name of the new set</label>
        <input id="join-name" name="name" maxlength="200" value="{{ mb_strimwidth("$onto, $names", 0, 190, '…') }}" />
    </div>
    <p class="error" role="alert" hidden></p>
    <p class="acts"><button class="button primary">Join</button> <button type="button" class="button" data-close>Cancel</button></p>
</form>
