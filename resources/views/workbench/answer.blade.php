<hx-partial hx-target="#rows" hx-swap="innerMorph">@include ('workbench.rows')</hx-partial>
@if ($ledger->columns->isOn())
    <hx-partial hx-target="#ledger-head" hx-swap="innerMorph">@include ('workbench.head')</hx-partial>
@endif
<hx-partial hx-target="#foot" hx-swap="innerMorph">@include ('workbench.foot')</hx-partial>
<hx-partial hx-target="#meter" hx-swap="innerHTML">@include ('workbench.meter')</hx-partial>
<hx-partial hx-target="#sides" hx-swap="innerMorph">@include ('workbench.sides')</hx-partial>
@if ($bench->mayChange())
    <hx-partial hx-target="#history" hx-swap="innerMorph">@include ('workbench.history')</hx-partial>
@endif
<hx-partial hx-target="#desk-steps" hx-swap="innerMorph">@include ('workbench.desk-steps')</hx-partial>
<hx-partial hx-target="#card" hx-swap="innerMorph">@include ('workbench.card')</hx-partial>
<hx-partial hx-target="#isolated" hx-swap="innerMorph">@include ('workbench.isolated')</hx-partial>
<hx-partial hx-target="#parked" hx-swap="innerMorph">@include ('workbench.parked')</hx-partial>
@if (! $shelfIsKnown)
    <hx-partial hx-target="#shelf" hx-swap="innerMorph">@include ('workbench.shelf')</hx-partial>
@endif
@if ($message !== '')
    <hx-partial hx-target="#message" hx-swap="innerHTML">@include ('workbench.message')</hx-partial>
@endif
<hx-partial hx-target="#canvas-state" hx-swap="innerHTML">@include ('workbench.state')</hx-partial>
