@use ('App\View\Icon')
@if ($about->oneAtATime)
    <small class="one-at-a-time" title="Showing one of them hides the others">one at a time</small>
@endif
@if ($about->missing > 0)
    <small class="warn" title="Members that are gone from the project">{{ number_format($about->missing) }} gone</small>
@endif
@if ($about->heldBack !== '')
    <small class="warn" title="{{ $about->heldBack }}">not for export</small>
@endif
@if ($about->remark !== '')
    <span class="remark" title="{{ $about->remark }}"
        >{!! Icon::svg('triangle-alert') !!}<span class="unseen">{{ $about->remark }}</span></span
    >
@endif
@if ($about->note !== '')
    <span class="note" title="{{ $about->note }}"
        >{!! Icon::svg('sticky-note') !!}<span class="unseen">Note: {{ $about->note }}</span></span
    >
@endif
