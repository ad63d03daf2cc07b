<data
    id="state"
    data-revision="{{ $state['revision'] }}"
    data-desk="{{ $state['desk'] }}"
    data-packs="{{ $state['packs'] }}"
    data-states="{{ $state['states'] }}"
    data-pick="{{ $state['pick'] }}"
    data-tint="{{ $state['tint'] }}"
    data-edges="{{ $state['edges'] }}"
    data-section="{{ $state['section'] }}"
    data-edge-mode="{{ $bench->desk->edges }}"
    data-picked="{{ $bench->pick()->count() }}"
    data-more="{{ json_encode($more) }}"
></data>
