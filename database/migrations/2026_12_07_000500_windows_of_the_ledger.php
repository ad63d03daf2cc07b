<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** How each window of a person has the ledger open. */
return new class extends Migration {
    public function up(): void
    {
        Schema::create('ledger_windows', static function (Blueprint $table): void {
            $table->foreignId('project_id')->constrained()->cascadeOnDelete();
            $table->foreignId('user_id')->constrained()->cascadeOnDelete();
            $table->string('window', 24);
            $table->json('arrangement');
            $table->text('line')->default('');
            $table->timestampTz('used_at', 6);
            $table->primary(['project_id', 'user_id', 'window']);
        });
    }

    public function down(): void
    {
        Schema::drop('ledger_windows');
    }
};
