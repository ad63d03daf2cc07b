<hx-partial hx-target="#ledger-head" hx-swap="innerMorph">@include ('workbench.head')</hx-partial>
<hx-partial hx-target="#ledger-tools" hx-swap="innerMorph">@include ('workbench.ledger-tools')</hx-partial>
<hx-partial hx-target="#grid-strip" hx-swap="innerMorph">@include ('workbench.grid-strip')</hx-partial>
@include ('workbench.rows')
