<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** When changes were taken back and done again, so that it can be told how a project was sorted on an earlier day. */
return new class extends Migration {
    public function up(): void
    {
        Schema::table('changes', static function (Blueprint $table): void {
            $table->jsonb('turns')->default('[]');
            $table->timestamp('turned_at')->nullable();
            // Taken back, and something else done since: nobody can do it again.
            $table->boolean('let_go')->default(false);
        });
    }

    public function down(): void
    {
        Schema::table('changes', static fn (Blueprint $table) => $table->dropColumn(['turns', 'turned_at', 'let_go']));
    }
};
