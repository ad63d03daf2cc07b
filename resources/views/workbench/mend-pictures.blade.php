@if ($bench->mayChange())
    @php
        $origin = $text->originOf($holder);
        $view = $bench->outputs()->view();
    @endphp
    @foreach (array_filter([
            '' => $origin === 'own' ? null : 'Full in every picture',
            '1' => $view === null || $origin === 'never' ? null : 'Full in this view’s'
        ])
        as $onlyInView => $label)
        <button
            type="button"
            class="link"
            data-mend
            data-what="{{ $holder->what }}"
            data-number="{{ $holder->number }}"
            data-part="rung"
            data-only-in-view="{{ $onlyInView }}"
            @if ($onlyInView) title="In pictures of {{ $view->name }} only" @endif
        >
            {{ $label }}
        </button>
    @endforeach
@endif
