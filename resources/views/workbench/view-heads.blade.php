@php
    $columns = $ledger->columns;
@endphp
<span class="beyond" role="presentation"></span>
@foreach ($columns->views as $view)
    @php
        $new = $bench->newTo()->count($view);
        $isCurrent = $bench->desk->view_no === $view->no;
        $title = $view->name . ($view->keepsRungs() ? '' : ': keeps no rungs') . ($new > 0 ? ': ' . number_format($new) . ' new' : '');
    @endphp
    <span
        role="columnheader"
        @class (['view-head', 'narrow' => $columns->isNarrow(), 'current' => $isCurrent, 'keeps-none' => ! $view->keepsRungs()])
        data-view-head="V{{ $view->no }}"
        title="{{ $title }}"
        ><button class="head-button" tabindex="-1" aria-haspopup="menu" aria-label="Column {{ $view->name }}"
            ><b>{{ $view->name }}</b
            >@if ($new > 0)<em>{{ number_format($new) }} new</em>@endif</button
    ></span>
@endforeach
<span class="beyond" role="presentation"></span>
