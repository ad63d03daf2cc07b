@php ($message = $sentence)
<hx-partial hx-target="#message" hx-swap="innerHTML"
    ><p class="warns" data-field="{{ $field }}"><span>{{ $message }}</span></p></hx-partial
>
