@php
    $view = $bench->outputs()->view();
    $isOutput = $bench->desk->shows_output;
    $pictures = $view === null ? 'pictures of no view' : 'pictures of view ' . $view->name;
@endphp
<span class="sides" role="group" aria-label="What the canvas shows">
    <button
        data-command="show-desk"
        aria-pressed="{{ $isOutput ? 'false' : 'true' }}"
        title="The canvas shows your desk; Shift+O turns"
    >
        Desk
    </button>
    <button
        data-command="show-output"
        aria-pressed="{{ $isOutput ? 'true' : 'false' }}"
        title="The canvas shows what {{ $pictures }} contain; Shift+O turns"
    >
        Output
    </button>
</span>
<button
    class="link differ @if ($differ === 0) is-same @endif"
    data-command="difference"
    data-of="{{ $bench->desk->output_of_view ? 'view' : 'none' }}"
    data-view="{{ $bench->view()?->name }}"
    aria-haspopup="menu"
    title="How many objects {{ $pictures }} show otherwise than your desk"
>
    {{ $differ === 0 ? 'no difference' : number_format($differ) . ' differ' }}
</button>
