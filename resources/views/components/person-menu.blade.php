<button
    class="avatar"
    popovertarget="person-menu"
    aria-label="{{ auth()->user()->initials() }}, {{ auth()->user()->name }}: theme and sign out"
    title="{{ auth()->user()->name }}"
>
    {{ auth()->user()->initials() }}
</button>
<div class="menu person-menu" id="person-menu" popover>
    <p>{{ auth()->user()->name }}<br /><small>{{ auth()->user()->email }}</small></p>
    <form method="post" action="{{ route('theme') }}" class="themes" aria-label="Theme">
        @csrf
        @foreach (['auto' => 'As the system', 'light' => 'Light', 'dark' => 'Dark'] as $theme => $label)
            <button
                name="theme"
                value="{{ $theme }}"
                @if (auth()->user()->theme === $theme) aria-pressed="true" @else aria-pressed="false" @endif
            >
                {{ $label }}
            </button>
        @endforeach
    </form>
    <form method="post" action="{{ route('sign-out') }}">
        @csrf
        <button class="item">{!! App\View\Icon::svg('log-out') !!} Sign out</button>
    </form>
</div>
