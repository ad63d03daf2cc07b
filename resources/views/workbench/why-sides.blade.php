<p class="why-sides" role="group" aria-label="Where it shows">
    <button type="button" class="link" data-why-side="desk" aria-pressed="{{ $side->isOutput ? 'false' : 'true' }}">On the desk</button>
    <button type="button" class="link" data-why-side="output" aria-pressed="{{ $side->isOutput ? 'true' : 'false' }}">In pictures</button>
</p>
