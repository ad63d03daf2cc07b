@foreach ($steps as [$command, $icon, $step, $words, $keys])
    <button
        class="icon-button"
        data-command="{{ $command }}"
        data-change="{{ $step?->no }}"
        @disabled ($step === null)
        title="{{ $words }} ({{ $keys }})"
        aria-label="{{ $words }}"
    >
        {!! App\View\Icon::svg($icon) !!}
    </button>
@endforeach
