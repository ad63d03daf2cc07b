<hx-partial hx-target="#message" hx-swap="innerHTML"
    ><p><span>{{ $message }}</span></p></hx-partial
>
