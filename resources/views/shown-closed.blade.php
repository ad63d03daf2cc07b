<x-page title="Nothing is shown here" class="quiet">
    <main class="sign-in">
        <h1><x-logo /> Nothing is shown here</h1>
        <p>The link has ended, or was never one. Ask whoever sent it to you for another.</p>
    </main>
</x-page>
