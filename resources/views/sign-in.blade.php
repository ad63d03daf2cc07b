<x-page title="Sign in" class="quiet">
    <main class="sign-in">
        <h1><x-logo /> Vine Shelf</h1>
        <p>Sort large models, decide what shows, and keep the views.</p>
        <form method="post" action="{{ route('sign-in') }}" novalidate>
            @csrf
            <label for="email">E-mail</label>
            <input
                id="email"
                name="email"
                type="email"
                autocomplete="username"
                value="{{ old('email') }}"
                @error ('email') aria-invalid="true" aria-describedby="email-error" @enderror
                autofocus
            />
            @error ('email')
                <p class="error" id="email-error">{{ $message }}</p>
            @enderror
            <label for="password">Password</label>
            <input
                id="password"
                name="password"
                type="password"
                autocomplete="current-password"
                @error ('password') aria-invalid="true" aria-describedby="password-error" @enderror
            />
            @error ('password')
                <p class="error" id="password-error">{{ $message }}</p>
            @enderror
            <button class="button primary">Sign in</button>
        </form>
    </main>
</x-page>
