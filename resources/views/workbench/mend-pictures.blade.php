@php ($origin = $text->originOf($holder))
@if ($bench->mayChange())
    @if ($origin !== 'own')
        <button
            type="button"
            class="link"
            data-mend
            data-what="{{ $holder->what }}"
            data-number="{{ $holder->number }}"
            data-part="rung"
        >
            Full in every picture
        </button>
    @endif
    @if (($view = $bench->outputs()->view()) !== null && $origin !== 'never')
        <button
            type="button"
            class="link"
            data-mend
            data-what="{{ $holder->what }}"
            data-number="{{ $holder->number }}"
            data-part="rung"
            data-only-in-view="1"
            title="In pictures of {{ $view->name }} only"
        >
            Full in this view’s
        </button>
    @endif
@endif
