<button type="button" class="link why-side" data-why-side="{{ $side->isOutput ? 'desk' : 'output' }}">
    {{ $side->isOutput ? 'On the desk' : 'In pictures' }}
</button>
