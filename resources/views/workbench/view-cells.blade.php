@use ('App\View\Marks')
@use ('VineShelf\Rungs\Rung')
<span class="beyond" role="presentation"></span>
@foreach ($columns->views as $view)
    @php
        [$says, $part] = $columns->cell($row, $view);
        $rung = $says !== '' && ctype_digit($says) ? Rung::from((int) $says) : null;
        $word = $rung?->label() ?? ['' => 'nothing set', 'new' => 'new to the view', 'none' => 'no rungs'][$says];
    @endphp
    <span role="gridcell" class="view-cell"
        ><button
            class="cell-button says-{{ $says === '' ? 'nothing' : $says }}"
            tabindex="-1"
            data-says="{{ $says }}"
            data-col="V{{ $view->no }}"
            @if ($says === '0') data-back="{{ $columns->givesBack($view)->to($row->key) }}" @endif
            @if ($part) data-mixed="1" @endif
            data-why="{{ $view->name }}: {{ $word }}"
            aria-label="{{ $title }} in {{ $view->name }}: {{ $word }}"
        >
            @if ($rung !== null) {!! Marks::rung($rung, $rung, $part) !!} @endif
        </button></span
    >
@endforeach
<span class="beyond" role="presentation"></span>
