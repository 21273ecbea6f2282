//! The role that owns the tables: it migrates, makes and removes shops, backs up and restores. It never serves.

use crate::shop::Shop;
use crate::sign_in::Kept;
use crate::{Result, pool_of};
use sqlx::PgPool;
use uuid::Uuid;

/// Handle on the database under the role that owns the tables.
#[derive(Debug, Clone)]
pub struct Owner {
    pool: PgPool,
}

impl Owner {
    /// Connects; `url` as PostgreSQL writes it.
    ///
    /// # Errors
    /// [`crate::StoreError::Database`] when it does not answer within five seconds.
    pub async fn connect(url: &str) -> Result<Self> {
        Ok(Self { pool: pool_of(url, 2).await? })
    }

    /// The same role on another database of the same server.
    ///
    /// # Errors
    /// [`crate::StoreError::Database`].
    pub async fn on_database(&self, name: &str) -> Result<Self> {
        let options = (*self.pool.connect_options()).clone().database(name);
        Ok(Self {
            pool: sqlx::postgres::PgPoolOptions::new().max_connections(2).connect_with(options).await?,
        })
    }

    /// Brings the schema up to date.
    ///
    /// # Errors
    /// [`crate::StoreError::Migrate`].
    pub async fn migrate(&self) -> Result<()> {
        Ok(sqlx::migrate!().run(&self.pool).await?)
    }

    /// The pool.
    #[must_use]
    pub fn pool(&self) -> &PgPool {
        &self.pool
    }

    /// The shop of that name, made when it is not there.
    ///
    /// # Errors
    /// Database errors.
    pub async fn ensure_shop(&self, name: &str) -> Result<Shop> {
        let row = sqlx::query!(
            "insert into shop (id, name) values ($1, $2)
             on conflict (name) do update set name = excluded.name returning id, name",
            Uuid::new_v4(),
            name
        )
        .fetch_one(&self.pool)
        .await?;
        Ok(Shop { id: row.id, name: row.name })
    }

    /// Removes a shop and everything of it.
    ///
    /// # Errors
    /// Database errors.
    pub async fn remove_shop(&self, id: Uuid) -> Result<()> {
        let mut tx = self.pool.begin().await?;
        sqlx::query!("update reading set replaces = null where shop_id = $1 and replaces is not null", id)
            .execute(&mut *tx)
            .await?;
        sqlx::query!("delete from shop where id = $1", id).execute(&mut *tx).await?;
        tx.commit().await?;
        Ok(())
    }

    /// A member as they stand in demo data: by name, without a PIN.
    ///
    /// # Errors
    /// Database errors.
    pub async fn ensure_member(&self, shop: Uuid, name: &str, role: &str, mark: i32) -> Result<()> {
        sqlx::query!(
            "insert into member (id, shop_id, name, role, mark) values ($1, $2, $3, $4, $5)
             on conflict (shop_id, lower(name)) where left_at is null do nothing",
            Uuid::new_v4(),
            shop,
            name,
            role,
            mark
        )
        .execute(&self.pool)
        .await?;
        Ok(())
    }

    /// Makes a shop with an owner who signs in by name and passphrase: a new account, or a membership for one that is there.
    /// Answers none where the shop's name is taken.
    ///
    /// # Errors
    /// Database errors.
    pub async fn make_shop(&self, shop: &NewShop<'_>) -> Result<Option<Shop>> {
        let mut tx = self.pool.begin().await?;
        let id = Uuid::new_v4();
        let made = sqlx::query!(
            "insert into shop (id, name, locked, slip_salt, slip_verifier) values ($1, $2, true, $3, $4) on conflict do nothing",
            id,
            shop.name,
            shop.slip.salt,
            shop.slip.verifier
        )
        .execute(&mut *tx)
        .await?;
        if made.rows_affected() == 0 {
            return Ok(None);
        }
        let known = sqlx::query_scalar!("select id from account where lower(login) = lower($1)", shop.login)
            .fetch_optional(&mut *tx)
            .await?;
        let account = match known {
            Some(a) => a,
            None => {
                let a = Uuid::new_v4();
                sqlx::query!(
                    "insert into account (id, login, salt, verifier) values ($1, $2, $3, $4)",
                    a,
                    shop.login,
                    shop.passphrase.salt,
                    shop.passphrase.verifier
                )
                .execute(&mut *tx)
                .await?;
                a
            }
        };
        sqlx::query!(
            "insert into member (id, shop_id, account_id, name, role) values ($1, $2, $3, $4, 'owner')",
            Uuid::new_v4(),
            id,
            account,
            shop.owner
        )
        .execute(&mut *tx)
        .await?;
        tx.commit().await?;
        Ok(Some(Shop { id, name: shop.name.to_owned() }))
    }
}

/// A shop as its operator makes it.
#[derive(Debug, Clone, Copy)]
pub struct NewShop<'a> {
    /// Its name.
    pub name: &'a str,
    /// Its owner's name on the bench.
    pub owner: &'a str,
    /// The name they sign in with.
    pub login: &'a str,
    /// Their passphrase; of somebody who is known already it stays the one they have.
    pub passphrase: Kept<'a>,
    /// The slip.
    pub slip: Kept<'a>,
}
