<p class="@if ($warns) warns @endif"><span>{{ $message }}</span>@if ($undo !== '')<button class="link" data-command="{{ $undo === 'desk' ? 'desk-undo' : 'undo' }}">Undo</button>@endif</p>
