<x-page title="Password" class="quiet">
    <main class="sign-in">
        <h1><x-logo /> A password, please</h1>
        <p>Whoever sent you this link has given you one with it.</p>
        <form method="post" action="{{ route('shown.open', $token) }}">
            @csrf
            <label for="password">Password</label>
            <input
                id="password"
                name="password"
                type="password"
                autocomplete="off"
                autofocus
                @if ($wrong) aria-invalid="true" aria-describedby="password-error" @endif
            />
            @if ($wrong)
                <p class="error" id="password-error">This is not the password of this link.</p>
            @endif
            <button class="button primary">Show the views</button>
        </form>
    </main>
</x-page>
