# frozen_string_literal: true

module Roost
  module Web
    # The question bank by itself: to look through and to tidy. Putting questions into a
    # lesson begins at the lesson (Additions).
    class Bank < TeacherApp
      helpers BankPages

      get "/" do
        page("bank/index", title: "Question bank", **bank_page)
      end

      post "/remove" do
        ids = granted(Operations::RemoveFromBank.new.call(account_id, chosen))
        redirect "/bank?#{URI.encode_www_form(removed: ids.join(","))}", 303
      end

      post "/restore" do
        ids = params["removed"].to_s.split(",").filter_map { |id| whole(id) }
        granted(Operations::RemoveFromBank.new.call(account_id, ids, removed: false))
        redirect "/bank", 303
      end

      helpers do
        def chosen = Array(params["questions"]).filter_map { |id| whole(id) }
      end
    end
  end
end
